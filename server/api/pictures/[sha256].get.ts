import { pathText } from '../../doors/doors'
import { serving } from '../../doors/files'
import { readBlob } from '../../records/pictures/blobs'

export default serving('/api/pictures/{sha256}', (db, event) => readBlob(db, pathText(event, 'sha256')))
