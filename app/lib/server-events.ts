/**
 * What the server tells by itself, by one connection a tab. A browser gives all tabs of a server six connections
 * between them, and what is asked beyond waits without a word: so there is one, and a tab that nobody looks at lets go
 * of it.
 */

export interface Hearer {
  /** What is done with each event, by its name. */
  events: Record<string, (data: string) => void>
  /** The connection stands. */
  opened?: () => void
  /** It is gone, by a fault or as nobody looks; what is told meanwhile is not told again. */
  gone: () => void
}

/** A look at another tab is often short. */
const LET_GO_MS = 10_000
/** A browser tries again by itself when a connection breaks, and never when it was refused. */
const AGAIN_MS = 3000

const hearers: Hearer[] = []
let source: EventSource | null = null
let timer: ReturnType<typeof setTimeout> | undefined

/** Hears the server for as long as the page stands. */
export function hearServer(hearer: Hearer): void {
  hearers.push(hearer)
  if (source !== null) attach(source, hearer)
  if (hearers.length > 1) return
  document.addEventListener('visibilitychange', looked)
  // a page that is left can be kept as it stands for the way back, its connection with it and its timers asleep: some
  // such pages, and the one that is gone to waits for a connection
  window.addEventListener('pagehide', letGo)
  window.addEventListener('pageshow', cameBack)
  open()
}

function attach(to: EventSource, { events, opened, gone }: Hearer): void {
  for (const [name, heard] of Object.entries(events))
    to.addEventListener(name, e => heard((e as MessageEvent<string>).data))
  if (opened) to.addEventListener('open', opened)
  to.addEventListener('error', gone)
}

function open(): void {
  const opening = new EventSource('/api/events')
  source = opening
  for (const h of hearers) attach(opening, h)
  opening.addEventListener('error', () => {
    if (opening !== source || opening.readyState !== EventSource.CLOSED) return
    if (document.hidden) letGo()
    else later(open, AGAIN_MS)
  })
}

function letGo(): void {
  clearTimeout(timer)
  source?.close()
  source = null
  for (const h of hearers) h.gone()
}

/** The page is looked at again, or not any more. */
function looked(): void {
  if (document.hidden) later(letGo, LET_GO_MS)
  else if (source === null || source.readyState === EventSource.CLOSED) later(open, 0)
  else clearTimeout(timer)
}

/** Back to a page as it was left. A page that is shown for the first time has opened its connection itself. */
function cameBack(shown: PageTransitionEvent): void {
  if (shown.persisted && source === null) later(open, 0)
}

function later(what: () => void, ms: number): void {
  clearTimeout(timer)
  timer = setTimeout(what, ms)
}
