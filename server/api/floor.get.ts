import { floor } from '../records/floor'

export default answering(db => floor(db))
