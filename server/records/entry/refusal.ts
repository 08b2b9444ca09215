import { answersTo, type FieldProblem, type Problem, type Question } from '#shared/problem'

/** Thrown by the records when an entry cannot be taken as it is; the door turns it into problem+json. */
export class Refusal extends Error {
  constructor(readonly problem: Problem) {
    super(problem.title)
    this.name = 'Refusal'
  }
}

export function refuseField(field: string, message: string): never {
  throw new Refusal({ type: 'urn:iron-nozzle:field', status: 422, title: message, errors: [{ field, message }] })
}

export function refuseFields(errors: FieldProblem[]): never {
  throw new Refusal({ type: 'urn:iron-nozzle:field', status: 422, title: errors[0]!.message, errors })
}

export function notFound(what: string): never {
  throw new Refusal({ type: 'about:blank', status: 404, title: `${what} is not known` })
}

/** Asks every question that has not been confirmed yet. */
export function ask(questions: Question[], confirmed: string[]): void {
  const open = questions.filter(q => !answersTo(q).some(code => confirmed.includes(code)))
  if (open.length > 0)
    throw new Refusal({ type: 'urn:iron-nozzle:question', status: 409, title: open[0]!.message, questions: open })
}

/** Nothing can have happened later than now; clocks may differ by a few minutes. */
export function notInFuture(field: string, iso: string): Date {
  const date = new Date(iso)
  if (date.getTime() > Date.now() + 4 * 60_000) refuseField(field, 'This is in the future; enter when it happened')
  return date
}
