import { ref } from 'vue'
import { api, unwrap } from '@/api/client'

/** The client in whose name services are tried; empty for whoever is signed in. */
export const caller = ref('')

interface Kept {
  client: string
  token: string
  until: number
}
let kept: Kept | undefined
const EARLY = 30_000

/** A token of the client that is meant, or undefined when calls are one's own. */
export async function callerToken(now = Date.now()): Promise<string | undefined> {
  if (!caller.value) return undefined
  if (kept?.client !== caller.value || kept.until < now) {
    const client = caller.value
    const made = await unwrap(
      api.POST('/manage/v1/clients/{name}/token', { params: { path: { name: client } } }),
    )
    kept = { client, token: made.token, until: now + made.seconds * 1000 - EARLY }
  }
  return kept.token
}
