/** The lines of a check, worked out and not stored. */
import { precheckSchema } from '#shared/entries/prepare'
import { answering, parsed } from '../../doors/doors'
import { makePrecheck } from '../../records/prepare/prechecks'

export default answering(async (db, event) => makePrecheck(db, (await parsed(event, precheckSchema)).body))
