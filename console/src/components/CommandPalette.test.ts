import { enableAutoUnmount, flushPromises } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { ref } from 'vue'
import { service, show, text, type } from '@/testing/service'
import CommandPalette from './CommandPalette.vue'

const signedIn = { duties: ['design', 'access'], records: true }
vi.mock('@/api/client', async () => (await import('@/testing/service')).clientModule())
vi.mock('@/composables/session', () => ({
  useSession: () => ({
    me: ref({ records: signedIn.records }),
    may: (duty: string) => signedIn.duties.includes(duty),
  }),
}))

const object = (name: string, plural: string, actions: string[]) => ({
  name,
  label: name,
  plural,
  actions,
  fields: [{ name: 'code' }, { name: 'partOf' }],
})
const entries = () => [...document.querySelectorAll('[role=option]')].map((one) => one.textContent?.trim())
const chosen = () => document.querySelector('[aria-selected=true]')?.textContent?.trim()

async function open() {
  const shown = await show(CommandPalette)
  dispatchEvent(new KeyboardEvent('keydown', { key: 'k', ctrlKey: true, cancelable: true }))
  await flushPromises()
  return shown
}
async function key(name: string) {
  document
    .querySelector('[aria-label="Find anything"]')!
    .dispatchEvent(new KeyboardEvent('keydown', { key: name, bubbles: true }))
  await flushPromises()
}

beforeEach(() => {
  signedIn.duties = ['design', 'access']
  signedIn.records = true
  service.forget()
  service.answers('GET /manage/v1/model', {
    objects: [object('Order', 'Orders', ['VIEW', 'CREATE']), object('Part', 'Parts', ['VIEW'])],
  })
  service.answers('GET /manage/v1/model/services', [{ name: 'order-desk', version: 2, label: 'Order desk' }])
})
afterEach(() => (document.body.innerHTML = ''))
enableAutoUnmount(afterEach)

describe('the palette', () => {
  it('is opened and closed by its key alone', async () => {
    await show(CommandPalette)
    for (const wrong of [
      { key: 'k' },
      { key: 'k', ctrlKey: true, shiftKey: true },
      { key: 'j', ctrlKey: true },
    ])
      dispatchEvent(new KeyboardEvent('keydown', wrong))
    await flushPromises()
    expect(document.querySelector('[aria-label="Find anything"]')).toBeNull()
    dispatchEvent(new KeyboardEvent('keydown', { key: 'K', metaKey: true }))
    await flushPromises()
    expect(document.querySelector('[aria-label="Find anything"]')).not.toBeNull()
  })

  it.each([
    ['requirements', 'Page Requirements'],
    ['access', 'Page Access'],
    ['activity', 'Page Activity'],
    ['orders', 'Data Orders'],
    ['new order', 'New Order'],
    ['order.part', 'Field Order.partOf'],
    ['desk', 'Service Order desk'],
  ])('finds by %s', async (typed, found) => {
    await open()
    await type('[aria-label="Find anything"]', typed)
    expect(entries()[0]).toBe(found)
  })

  it('offers nothing that is not allowed', async () => {
    signedIn.duties = []
    await open()
    await type('[aria-label="Find anything"]', 'part')
    expect(entries()).toEqual(['Data Parts'])
    await type('[aria-label="Find anything"]', 'releases')
    expect(text()).toContain('Nothing is called like this.')
    expect(service.asked().some((one) => one.path.endsWith('/services'))).toBe(false)
  })

  it('is walked by arrows, which stop at its ends, and goes where Enter is pressed', async () => {
    const { router } = await open()
    await type('[aria-label="Find anything"]', 'order.')
    expect(entries()).toEqual(['Field Order.code', 'Field Order.partOf'])
    await key('ArrowUp')
    expect(chosen()).toBe('Field Order.code')
    await key('ArrowDown')
    await key('ArrowDown')
    expect(chosen()).toBe('Field Order.partOf')
    await key('Enter')
    await vi.waitFor(() => expect(router.currentRoute.value.path).toBe('/model/Order'))
  })

  it('begins anew with what is typed', async () => {
    await open()
    await type('[aria-label="Find anything"]', 'order')
    await key('ArrowDown')
    await type('[aria-label="Find anything"]', 'orders')
    expect(chosen()).toBe(entries()[0])
  })

  it('goes nowhere where nothing is found', async () => {
    const { router } = await open()
    await type('[aria-label="Find anything"]', 'zebra')
    await key('Enter')
    expect(router.currentRoute.value.path).toBe('/')
  })
})
