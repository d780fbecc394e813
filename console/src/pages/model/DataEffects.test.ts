import { mount } from '@vue/test-utils'
import { VueQueryPlugin } from '@tanstack/vue-query'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { nextTick } from 'vue'
import { api } from '@/api/client'
import DataEffects from './DataEffects.vue'

vi.mock('@/api/client', () => ({
  api: { GET: vi.fn() },
  unwrap: (call: Promise<{ data: unknown }>) => call.then((answer) => answer.data),
}))

describe('what a draft would do to records', () => {
  const effects = async (preview: object) => {
    vi.mocked(api.GET).mockResolvedValue({ data: preview } as never)
    const shown = mount(DataEffects, { props: { object: 'Stay' }, global: { plugins: [VueQueryPlugin] } })
    await new Promise((resolve) => setTimeout(resolve))
    await nextTick()
    return shown
  }
  beforeEach(() => vi.mocked(api.GET).mockReset())

  it('is told of this object alone, the worst first', async () => {
    const shown = await effects({
      obstacles: ['Stay.name is now required.', 'StayLog.name is now required.'],
      losses: ['Stay.note is removed.'],
      breaks: [],
    })
    const told = shown.findAll('[data-test=effects]')
    expect(told.map((one) => one.text())).toEqual([
      expect.stringContaining('In the way of a release'),
      expect.stringContaining('Lost with a release'),
    ])
    expect(shown.text()).not.toContain('StayLog')
  })

  it('is nothing where nothing happens', async () => {
    const shown = await effects({ obstacles: [], losses: [], breaks: ['berth-desk: Berth is gone'] })
    expect(shown.findAll('[data-test=effects]')).toHaveLength(0)
  })
})
