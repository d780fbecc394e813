import { flushPromises } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { button, service, show, text, type } from '@/testing/service'
import SignInPage from './SignInPage.vue'

vi.mock('@/api/client', async () => (await import('@/testing/service')).clientModule())

const submit = async () => {
  document.querySelector('form')!.dispatchEvent(new Event('submit'))
  await flushPromises()
}

beforeEach(() => service.forget())
afterEach(() => (document.body.innerHTML = ''))

describe('signing in', () => {
  it('needs a name and a password', async () => {
    await show(SignInPage)
    expect(button('Sign in').disabled).toBe(true)
    await type('#name', 'ann')
    await type('#password', 'secret-pass')
    expect(button('Sign in').disabled).toBe(false)
  })

  it('goes on where one was going', async () => {
    service.answers('POST /manage/v1/session', { name: 'ann', duties: [], records: true, temporary: false })
    const { router } = await show(SignInPage, {}, '/sign-in?then=/data/Stay')
    await type('#name', 'ann')
    await type('#password', 'secret-pass')
    await submit()
    expect(service.changes()[0]?.body).toEqual({ name: 'ann', password: 'secret-pass' })
    expect(router.currentRoute.value.fullPath).toBe('/data/Stay')
  })

  it('goes nowhere else than into the console', async () => {
    service.answers('POST /manage/v1/session', { name: 'ann', duties: [], records: true, temporary: false })
    const { router } = await show(SignInPage, {}, '/sign-in?then=https://evil.example')
    await submit()
    expect(router.currentRoute.value.fullPath).toBe('/')
  })

  it('says why it is refused', async () => {
    service.refuses('POST /manage/v1/session', 'The name or the password is not right.')
    await show(SignInPage)
    await type('#name', 'ann')
    await type('#password', 'wrong')
    await submit()
    expect(text()).toContain('The name or the password is not right.')
  })

  it("asks for a password of one's own when the first came from somebody else", async () => {
    service.answers('POST /manage/v1/session', { name: 'ann', duties: [], records: true, temporary: true })
    await show(SignInPage)
    await type('#name', 'ann')
    await type('#password', 'given-by-bob')
    await submit()
    expect(text()).toContain('Choose your own password')
    await type('#next', 'short')
    expect(button('Go on with this one').disabled).toBe(true)
    await type('#next', 'long-enough')
    service.answers('POST /manage/v1/session', { name: 'ann', duties: [], records: true, temporary: false })
    await submit()
    expect(service.changes().map((one) => one.body)).toEqual([
      { name: 'ann', password: 'given-by-bob' },
      { current: 'given-by-bob', next: 'long-enough' },
      { name: 'ann', password: 'long-enough' },
    ])
  })
})
