/**
 * One thread for heavy work, started when it is first needed. Where there is none (tests, scripts) the work is done in
 * place: the result is the same.
 */
import { Worker } from 'node:worker_threads'
import { InputError } from '#core/numeric'
import { TASKS, type Task } from './tasks'

interface Answer {
  id: number
  done?: unknown
  failed?: string
  field: string | null
  given: unknown
  allowed: string | null
}
let code: string | null = null
let thread: Worker | null = null
let last = 0
const waiting = new Map<number, { done: (value: unknown) => void; failed: (error: Error) => void }>()

/** The thread's program, bundled when the app was built. */
export function useThread(source: string): void {
  code = source
}

export async function heavy<T extends Task>(
  task: T,
  arg: Parameters<(typeof TASKS)[T]>[0],
): Promise<ReturnType<(typeof TASKS)[T]>> {
  type Result = ReturnType<(typeof TASKS)[T]>
  if (code === null) return (TASKS[task] as (a: unknown) => Result)(arg)
  thread ??= started(code)
  thread.ref()
  const id = ++last
  return await new Promise<Result>((done, failed) => {
    waiting.set(id, { done: v => done(v as Result), failed })
    thread!.postMessage({ id, task, arg })
  })
}

function started(source: string): Worker {
  const worker = new Worker(source, { eval: true, name: 'heavy', resourceLimits: { maxOldGenerationSizeMb: 256 } })
  worker.on('message', ({ id, done, failed, field, given, allowed }: Answer) => {
    const one = waiting.get(id)
    waiting.delete(id)
    if (waiting.size === 0) worker.unref()
    if (failed === undefined) one?.done(done)
    else one?.failed(field === null ? new Error(failed) : new InputError(field, given as never, allowed!))
  })
  worker.on('error', error => lost(worker, error))
  worker.on('exit', code => lost(worker, new Error(`the thread for heavy work ended (code ${code})`)))
  return worker
}

/** What waited on it fails; the next task starts another. */
function lost(worker: Worker, error: Error): void {
  if (thread !== worker) return
  thread = null
  for (const one of waiting.values()) one.failed(error)
  waiting.clear()
}

export async function stopThread(): Promise<void> {
  const worker = thread
  thread = null
  await worker?.terminate()
}
