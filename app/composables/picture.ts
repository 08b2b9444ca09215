/**
 * One picture in this browser: chosen, decoded in the background, measured there with progress, cancelled by stopping
 * the worker. Whatever is wrong with a file ends in `failure`, never in a broken page.
 */
import { proxy, wrap, type Remote } from 'comlink'
import { onBeforeUnmount, reactive } from 'vue'
import { MOST_PIXELS, SIDE_PX } from '#core/imaging'
import { pictureRefusal, tooMany, undecoded } from '~/lib/picture-file'
import type { PictureWorker } from '~/workers/picture.worker'

export function usePicture() {
  let worker: Worker | null = null
  let api: Remote<PictureWorker> | null = null
  let failed: Promise<never> | null = null
  let file: Blob | null = null
  const state = reactive({
    /** Where the picture can be shown from; null while none is open. */
    url: null as string | null,
    name: '',
    width: 0,
    height: 0,
    /** What is being done, and how far it is. */
    busy: null as 'opening' | 'measuring' | null,
    share: 0,
    failure: '',
  })

  function stop(): void {
    worker?.terminate()
    worker = null
    api = null
  }
  function close(): void {
    stop()
    if (state.url) URL.revokeObjectURL(state.url)
    file = null
    Object.assign(state, { url: null, name: '', width: 0, height: 0, busy: null, share: 0, failure: '' })
  }
  onBeforeUnmount(close)

  /** The worker with the picture in it: started anew after a cancel. */
  async function ready(): Promise<Remote<PictureWorker>> {
    if (api) return api
    worker = new Worker(new URL('~/workers/picture.worker.ts', import.meta.url), { type: 'module' })
    const stopped = worker
    failed = new Promise<never>((_, no) => {
      stopped.onerror = e => no(new Error(e.message || 'the reader stopped'))
    })
    failed.catch(() => {})
    api = wrap(worker) as Remote<PictureWorker>
    const { width, height } = await Promise.race([api.open(file!), failed])
    Object.assign(state, { width, height })
    return api
  }

  async function open(chosen: Blob, name: string): Promise<boolean> {
    close()
    state.busy = 'opening'
    state.name = name
    const refused = await pictureRefusal(chosen)
    if (refused) return give(refused)
    file = chosen
    try {
      await ready()
    } catch {
      return give(undecoded)
    }
    if (Math.min(state.width, state.height) < SIDE_PX[0])
      return give(
        `This picture is ${state.width} × ${state.height} pixels; at least ${SIDE_PX[0]} each way are needed.`,
      )
    if (state.width * state.height > MOST_PIXELS) return give(tooMany)
    state.url = URL.createObjectURL(chosen)
    state.busy = null
    return true
  }
  function give(reason: string): false {
    const { name } = state
    close()
    Object.assign(state, { failure: reason, name })
    return false
  }

  /** Runs one piece of work on the open picture; null when it was cancelled or failed. */
  async function work<T>(
    what: (api: Remote<PictureWorker>, progress: (share: number) => void) => Promise<T>,
  ): Promise<T | null> {
    if (!file || state.busy) return null
    Object.assign(state, { busy: 'measuring', share: 0, failure: '' })
    try {
      const a = await ready()
      const mine = worker
      const progress = proxy((share: number) => {
        if (mine === worker) state.share = share
      })
      const done = await Promise.race([what(a, progress), failed!])
      if (mine !== worker) return null
      return done
    } catch (error) {
      state.failure = `This could not be measured: ${error instanceof Error ? error.message : String(error)}.`
      stop()
      return null
    } finally {
      state.busy = null
    }
  }
  function cancel(): void {
    stop()
    state.busy = null
  }
  return { state, open, close, work, cancel }
}
