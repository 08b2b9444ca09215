import { asking } from '../../doors/doors'
import { keepPiece } from '../../records/intake/stage'

export default asking('/api/intake/pieces', keepPiece)
