import { strikeSchema } from '#shared/entries/log'
import { entry } from '../doors/doors'
import { saveStrike } from '../records/entry/strikes'

export default entry(strikeSchema, (tx, body, personId) => saveStrike(tx, body, personId))
