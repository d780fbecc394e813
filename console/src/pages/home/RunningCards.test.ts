import { VueQueryPlugin } from '@tanstack/vue-query'
import { flushPromises, mount } from '@vue/test-utils'
import { beforeEach, expect, it, vi } from 'vitest'
import { api } from '@/api/client'
import RunningCards from './RunningCards.vue'

const duties = { list: [] as string[] }
vi.mock('@/api/client', () => ({ api: { GET: vi.fn() }, unwrap: (one: unknown) => one }))
vi.mock('@/api/draft', () => ({ versionsOf: () => Promise.resolve([]) }))
vi.mock('@/composables/session', () => ({
  useSession: () => ({ may: (duty: string) => duties.list.includes(duty), me: { value: { name: 'me' } } }),
}))

beforeEach(() => {
  vi.mocked(api.GET).mockReset()
  vi.mocked(api.GET).mockImplementation(((path: string) =>
    Promise.resolve(
      path.includes('traffic')
        ? {
            byDay: [
              { day: '2026-05-01', calls: 3, errors: 0 },
              { day: '2026-05-02', calls: 8, errors: 1 },
            ],
          }
        : { parked: 2, waiting: 0, failing: 0, proved: 1, open: 0 },
    )) as never)
})

const shown = async () => {
  const wrapper = mount(RunningCards, {
    global: { plugins: [VueQueryPlugin], stubs: { RouterLink: { template: '<a><slot /></a>' } } },
  })
  await flushPromises()
  return wrapper
}

it('shows the calls of the last day and what failed of them', async () => {
  duties.list = ['design']
  const wrapper = await shown()
  expect(wrapper.find('[data-test=calls-today]').text()).toBe('8')
  expect(wrapper.text()).toContain('1 failed')
  expect(wrapper.text()).toContain('Deliveries parked')
})

it('asks for nothing that somebody who only audits may not see', async () => {
  duties.list = ['audit']
  const wrapper = await shown()
  expect(wrapper.text()).not.toContain('Deliveries parked')
  expect((vi.mocked(api.GET).mock.calls as unknown[][]).map(([path]) => path)).toEqual(['/manage/v1/traffic'])
})
