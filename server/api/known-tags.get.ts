import { answering } from '../doors/doors'
import { knownTags } from '../records/shop/tags'

export default answering('/api/known-tags', knownTags)
