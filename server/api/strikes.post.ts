import { strikeSchema } from '#shared/entries'
import { saveStrike } from '../records/strikes'

export default entry(strikeSchema, (tx, body, personId) => saveStrike(tx, body, personId))
