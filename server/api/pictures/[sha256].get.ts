import { pathText, serving } from '../../doors/doors'
import { readBlob } from '../../records/pictures/blobs'

export default serving('/api/pictures/{sha256}', (db, event) => readBlob(db, pathText(event, 'sha256')))
