/**
 * Where work can hurt someone: one catalogue, shown at the step that triggers it. Temperatures in °C. What is outside
 * its range is refused by an InputError that names the field and what is allowed; sources stand at the head of each
 * file.
 */
export { CAUTIONS, cautionsFor, cautionsNamed, FIRST, SOCK_OFF } from './catalogue'
export { printing } from './printing'
export type { Action, Caution, Moment } from './catalogue'
