/**
 * A sheet is a step in the browser's history, so that Back (a thumb's way to close things on a phone) closes it and
 * stays on the page. Each open sheet has a mark of its own in the state of a history entry.
 */
import { newKey } from '~/lib/api'

interface Open {
  mark: string
  close: () => void
  /** Its step is in the history; before, no Back can have meant it. */
  there: boolean
}
/** Open sheets, the top one last. */
const open: Open[] = []
/** One step after another: a sheet that opens while another one's step is being taken back waits for it. */
let settled = Promise.resolve()
let leaving = false
let listening = false

/** When every sheet that was closed by now has taken its step out of the history. */
export const sheetsSettled = (): Promise<void> => settled

/** A step back takes a few ms. */
const LONGEST_MS = 500

const markNow = (): string | null => (history.state as { sheet?: string } | null)?.sheet ?? null

/** Back or Forward was pressed: closes what lies above the place arrived at; never rests at a sheet that is gone. */
function arrived(): void {
  const at = markNow()
  const keep = open.findIndex(s => s.mark === at)
  if (at !== null && keep < 0) history.back()
  else
    for (const s of open.slice(keep + 1).reverse())
      if (s.there) {
        open.splice(open.indexOf(s), 1)
        s.close()
      }
}

/** Tells whether a page is being left: its sheet's step then stays behind, and Back passes over it. */
export function watchLeaving(router: {
  beforeEach: (to: () => void) => unknown
  afterEach: (to: () => void) => unknown
}): void {
  router.beforeEach(() => {
    leaving = true
  })
  router.afterEach(() => {
    leaving = false
  })
  listen()
}
function listen(): void {
  if (listening) return
  listening = true
  addEventListener('popstate', arrived)
  if (markNow() !== null) history.back() // a reload closed the sheet; its step goes too
}

/** A sheet has opened. Answers what to call when it has closed, however that came about. */
export function sheetOpened(close: () => void): () => void {
  listen()
  const sheet: Open = { mark: newKey(), close, there: false }
  open.push(sheet)
  settled = settled.then(() => {
    if (!open.includes(sheet)) return
    history.pushState({ ...history.state, sheet: sheet.mark }, '')
    sheet.there = true
  })
  return () => {
    if (!open.includes(sheet)) return // closed by Back
    open.splice(open.indexOf(sheet), 1)
    if (sheet.there) settled = settled.then(() => stepBack(sheet.mark))
  }
}

/** Takes a closed sheet's step back, unless a link has led away from it meanwhile. */
async function stepBack(mark: string): Promise<void> {
  await new Promise(done => setTimeout(done))
  if (leaving || markNow() !== mark) return
  await new Promise<void>(done => {
    addEventListener('popstate', () => done(), { once: true })
    setTimeout(done, LONGEST_MS) // a browser that says nothing holds nothing up
    history.back()
  })
}
