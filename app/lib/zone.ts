/** The zone in which problems are worded when they arrive; set as soon as the shop is read. */
import type { Problem } from '#shared/problem'
import { withTimes } from '#shared/time'

let zone = 'UTC'
export function speakIn(name: string): void {
  zone = name
}

/** A problem with each ISO time in its texts said on the shop's clock. */
export function spoken(problem: Problem): Problem {
  const say = (t: string) => withTimes(t, zone)
  return {
    ...problem,
    title: say(problem.title),
    errors: problem.errors?.map(e => ({ ...e, message: say(e.message) })),
    questions: problem.questions?.map(q => ({
      ...q,
      message: say(q.message),
      items: q.items?.map(say),
      choices: q.choices?.map(c => ({ ...c, label: say(c.label), hint: c.hint && say(c.hint) })),
    })),
  }
}
