/** The lines of a check, worked out and not stored. */
import { precheckSchema } from '#shared/entries'
import { makePrecheck } from '../../records/prechecks'

export default answering(async (db, event) => makePrecheck(db, (await parsed(event, precheckSchema)).body))
