import { readonly, ref } from 'vue'
import { api, unwrap, type Me } from '@/api/client'
import { ApiProblem, onSessionEnded } from '@/api/http'
import { forgetJournal } from './journal'

const me = ref<Me | null>(null)
let asked = false
/** Whether the session ended while a page was open; what is typed there stays. */
const ended = ref(false)
onSessionEnded(() => {
  if (me.value) ended.value = true
})

/** Who is signed in; asked once, and again after signing in or out. */
export function useSession() {
  async function load() {
    if (asked) return
    asked = true
    try {
      me.value = await unwrap(api.GET('/manage/v1/session'))
    } catch (problem) {
      if (!(problem instanceof ApiProblem) || problem.problem.status !== 401) asked = false
      me.value = null
    }
  }

  async function signIn(name: string, password: string) {
    const before = me.value?.name
    me.value = await unwrap(api.POST('/manage/v1/session', { body: { name, password } }))
    if (me.value.name !== before) forgetJournal()
    asked = true
    ended.value = false
  }

  async function signOut() {
    ended.value = false
    await unwrap(api.DELETE('/manage/v1/session'))
    me.value = null
  }

  return {
    me: readonly(me),
    ended: readonly(ended),
    load,
    signIn,
    signOut,
    may: (duty: string) => me.value?.duties.includes(duty) ?? false,
  }
}
