/** Focus for a field of the page below a sheet that is closing. */

/** A dialog that is gone gives the focus back to what had it: that comes first. */
export const GIVEN_BACK_MS = 60
const LOOK_MS = 50
/** A sheet that stays has the focus. */
const LONGEST_MS = 3000

const wait = (ms: number) => new Promise(done => setTimeout(done, ms))

/** To the field of that id, once no sheet keeps the focus within itself. */
export async function focusOnceFree(id: string): Promise<void> {
  const isKept = () => document.querySelector('[role="dialog"]') !== null
  const until = Date.now() + LONGEST_MS
  await wait(LOOK_MS)
  if (isKept()) {
    while (isKept() && Date.now() < until) await wait(LOOK_MS)
    await wait(GIVEN_BACK_MS)
  }
  document.getElementById(id)?.focus()
}
