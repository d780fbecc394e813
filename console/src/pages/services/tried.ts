import { ref } from 'vue'
import { forgeryToken } from '@/api/http'
import type { Trial } from './curl'

/** How a tried call was answered. */
export interface Tried {
  status: number
  millis: number
  text: string
}

/** JSON with its lines broken; anything else as it came. */
export function prettyAnswer(text: string): string {
  try {
    return JSON.stringify(JSON.parse(text), null, 2)
  } catch {
    return text
  }
}

/** Calls a service as the page tries it; `pretty` makes the answer's text readable. */
export function useTrial(pretty: (text: string) => string) {
  const answer = ref<Tried | null>(null)
  const problem = ref('')
  const busy = ref(false)

  async function send(trial: Trial) {
    busy.value = true
    problem.value = ''
    const start = performance.now()
    try {
      const response = await fetch(trial.path, {
        method: trial.method,
        headers: { 'Content-Type': trial.type ?? 'application/json', 'X-XSRF-TOKEN': forgeryToken() },
        body: trial.body,
      })
      const text = await response.text()
      const millis = Math.round(performance.now() - start)
      answer.value = { status: response.status, millis, text: pretty(text) }
    } catch {
      problem.value = 'The service does not answer.'
    } finally {
      busy.value = false
    }
  }

  return { answer, problem, busy, send }
}
