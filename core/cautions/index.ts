/** Where work can hurt someone: one catalogue, shown at the step that triggers it. */
export { CAUTIONS, cautionsFor, FIRST } from './catalogue'
export type { Action, Caution, Moment } from './catalogue'
