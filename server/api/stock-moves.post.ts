import { entry } from '../doors/doors'
import { saveStockMove } from '../records/stock/items'

export default entry('/api/stock-moves', saveStockMove)
