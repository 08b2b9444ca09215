/** Refusals and questions as problem+json (RFC 9457), with the field or the question they are about. */
export interface FieldProblem { field: string, message: string }
/** Something unusual that a person may confirm; the code goes back in `confirmed`. */
export interface Question { code: string, field: string, message: string, items?: string[] }

export interface Problem {
  type: 'about:blank' | 'urn:iron-nozzle:field' | 'urn:iron-nozzle:question' | 'urn:iron-nozzle:stale' | 'urn:iron-nozzle:database' | 'urn:iron-nozzle:reused-key'
  title: string
  status: number
  detail?: string
  errors?: FieldProblem[]
  questions?: Question[]
  /** Both versions of a record that someone else changed meanwhile. */
  current?: unknown
  yours?: unknown
}
