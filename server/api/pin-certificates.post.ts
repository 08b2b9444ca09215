import { entry } from '../doors/doors'
import { saveCertificate } from '../records/pins/pins'

export default entry('/api/pin-certificates', saveCertificate)
