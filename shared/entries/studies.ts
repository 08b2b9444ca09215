/** Gauge studies and their readings. */
import { z } from 'zod'
import { GAUGED_MM } from '#core/wear'
import { MOST_LINES, STUDY_METHODS, STUDY_NOZZLES, STUDY_PEOPLE, STUDY_REPEATS } from '#core/study'
import { counted } from '#core/words'
import { between, confirmed, id, name, note, when } from './fields'

const several = ([least, most]: readonly [number, number], one: string, what: string) =>
  z
    .array(id)
    .min(least, `At least ${counted(least, one, what)}`)
    .max(most, `At most ${most} ${what}`)
    .refine(list => new Set(list).size === list.length, `The same one stands twice among the ${what}`)

export const studySchema = z
  .object({
    name: name(60),
    method: z.enum(STUDY_METHODS),
    /** The set-up that takes the pictures. */
    setupId: id.nullable().default(null),
    personIds: several(STUDY_PEOPLE, 'person', 'people'),
    nozzleIds: several(STUDY_NOZZLES, 'nozzle', 'nozzles'),
    repeats: between(...STUDY_REPEATS, 'rounds').int('Whole rounds'),
    note,
    occurredAt: when,
  })
  .superRefine((s, ctx) => {
    const say = (path: string, message: string) => ctx.addIssue({ code: 'custom', path: [path], message })
    if (s.method === 'picture' && s.setupId === null) say('setupId', 'Choose the set-up that takes the pictures')
    if (s.method === 'pins' && s.setupId !== null) say('setupId', 'Pins need no set-up')
    const lines = s.personIds.length * s.nozzleIds.length * s.repeats
    if (lines > MOST_LINES) say('repeats', `That is ${lines} lines; at most ${MOST_LINES}`)
  })
export type StudyEntry = z.input<typeof studySchema>

const bore = between(...GAUGED_MM, 'mm')
  .nullable()
  .default(null)
export const studyReadingSchema = z
  .object({
    studyId: id,
    /** Its place in the list, from 0. */
    line: between(0, MOST_LINES - 1, '(line)').int('A whole line'),
    goMm: bore,
    noGoMm: bore,
    valueMm: bore,
    note,
    occurredAt: when,
    confirmed,
  })
  .superRefine((r, ctx) => {
    const say = (path: string, message: string) => ctx.addIssue({ code: 'custom', path: [path], message })
    if (r.valueMm !== null && (r.goMm !== null || r.noGoMm !== null)) say('valueMm', 'Either pins or a value, not both')
    else if (r.valueMm === null && r.goMm === null && r.noGoMm === null) say('goMm', 'Enter the pins or the bore')
    else if (r.valueMm === null && r.goMm === null) say('goMm', 'A study needs the pin that goes too')
    else if (r.valueMm === null && r.noGoMm === null) say('noGoMm', 'A study needs the pin that does not go too')
    if (r.goMm !== null && r.noGoMm !== null && r.goMm >= r.noGoMm)
      say('goMm', `The go pin (${r.goMm}) must be smaller than the no-go pin (${r.noGoMm})`)
  })
export type StudyReadingEntry = z.input<typeof studyReadingSchema>
