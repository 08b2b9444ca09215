/** Refusals and questions as problem+json (RFC 9457), with the field or the question they are about. */
export interface FieldProblem {
  field: string
  message: string
}
/**
 * One of the answers to a question, by the code that goes back in `confirmed`. A `local` one changes the entry before
 * it is sent again (gauge once more, choose another nozzle): the form does it, and the server never takes it for an
 * answer.
 */
export interface Choice {
  code: string
  label: string
  hint?: string
  local?: boolean
}
/**
 * Something unusual that a person may confirm; the code goes back in `confirmed`. With choices, the code of the one
 * that was chosen goes back instead.
 */
export interface Question {
  code: string
  field: string
  message: string
  items?: string[]
  choices?: Choice[]
}

/** Codes that answer a question: one of its choices, where it has any; a bare yes says nothing then. */
export const answersTo = (q: Question): string[] =>
  q.choices ? q.choices.filter(c => !c.local).map(c => c.code) : [q.code]

export interface Problem {
  type:
    | 'about:blank'
    | 'urn:iron-nozzle:field'
    | 'urn:iron-nozzle:question'
    | 'urn:iron-nozzle:stale'
    | 'urn:iron-nozzle:database'
    | 'urn:iron-nozzle:reused-key'
    | 'urn:iron-nozzle:already-stored'
  title: string
  status: number
  detail?: string
  errors?: FieldProblem[]
  questions?: Question[]
  /** Both versions of a record that someone else changed meanwhile. */
  current?: unknown
  yours?: unknown
}
