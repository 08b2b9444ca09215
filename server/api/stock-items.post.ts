import { entry } from '../doors/doors'
import { addStockItem } from '../records/stock/items'

export default entry('/api/stock-items', addStockItem)
