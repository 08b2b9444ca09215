/**
 * A part of a screen that opens over it, or only when it is asked for: it is fetched once the screen is drawn, and,
 * where the server is away, until it comes.
 */
import { defineAsyncComponent, type Component } from 'vue'

const AGAIN_MS = 2000

/** Said in the setup of whatever shows it. */
export function later<T extends Component>(load: () => Promise<{ default: T }>): T {
  const first = new Promise<void>(drawn => onNuxtReady(drawn)).then(load)
  // one that is not shown yet need not hear that it did not come: it is asked for again when it is
  first.catch(() => {})
  return defineAsyncComponent({
    loader: () => first.catch(load),
    // the page does not wait for it
    suspensible: false,
    onError: (_error, retry) => void setTimeout(retry, AGAIN_MS),
  })
}
