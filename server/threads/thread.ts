/** The thread: takes a task at a time, and answers with its result or with what it threw. */
import { parentPort } from 'node:worker_threads'
import { InputError } from '#core/numeric'
import { TASKS, type Task } from './tasks'

parentPort?.on('message', ({ id, task, arg }: { id: number; task: Task; arg: never }) => {
  try {
    parentPort!.postMessage({ id, done: TASKS[task](arg) })
  } catch (error) {
    // an error keeps its class on this side only
    const { field, given, allowed } = error instanceof InputError ? error : { field: null, given: null, allowed: null }
    parentPort!.postMessage({ id, failed: String((error as Error).message), field, given, allowed })
  }
})
