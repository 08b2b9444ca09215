import { prepare } from '../records/prepare'

export default answering(db => prepare(db))
