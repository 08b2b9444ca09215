/** Reading a balance: busy while it is asked, and why it told nothing. */
import { ref } from 'vue'
import { ProblemError, read } from '~/lib/api'

export function useBalance() {
  const busy = ref(false)
  const failure = ref('')
  /** Gross, g; null where it told nothing. `query` names what the stand-in has on it. */
  async function weigh(query: Record<string, string>): Promise<number | null> {
    busy.value = true
    failure.value = ''
    try {
      return (await read('/api/balance', {}, query)).grossG
    } catch (e) {
      failure.value = e instanceof ProblemError ? e.problem.title : 'The server does not answer; type the weight'
      return null
    } finally {
      busy.value = false
    }
  }
  return { busy, failure, weigh }
}
