import { ref } from 'vue'
import { ApiProblem, forgeryToken } from '@/api/http'
import { at } from '@/api/place'
import { callerToken } from './caller'
import type { Trial } from './curl'

/** How a tried call was answered. */
export interface Tried {
  status: number
  millis: number
  text: string
  /** The ETag of the record it shows; absent when it shows none. */
  tag?: string
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
      const token = await callerToken()
      const response = await fetch(at(trial.path), {
        method: trial.method,
        // As a client it is not the person's session that counts.
        credentials: token ? 'omit' : 'same-origin',
        headers: {
          ...(token ? { Authorization: `Bearer ${token}` } : {}),
          'Content-Type': trial.type ?? 'application/json',
          'X-XSRF-TOKEN': forgeryToken(),
          ...(trial.ifMatch ? { 'If-Match': trial.ifMatch } : {}),
        },
        body: trial.body,
      })
      const text = await response.text()
      const millis = Math.round(performance.now() - start)
      const tag = response.headers.get('ETag') ?? undefined
      answer.value = { status: response.status, millis, text: pretty(text), tag }
    } catch (wrong) {
      problem.value = wrong instanceof ApiProblem ? wrong.message : 'The service does not answer.'
    } finally {
      busy.value = false
    }
  }

  return { answer, problem, busy, send }
}
