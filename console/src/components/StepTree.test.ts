import { beforeEach, describe, expect, it, vi } from 'vitest'
import { service, show } from '@/testing/service'
import StepTree from './StepTree.vue'

vi.mock('@/api/client', async () => (await import('@/testing/service')).clientModule())

const step = (kind: string, result: string, more: object = {}) => ({
  depth: 0,
  kind,
  title: kind.toLowerCase(),
  detail: '',
  result,
  micros: 1250,
  ...more,
})
const tree = async (steps: object[], chosen?: number) => (await show(StepTree, { steps, chosen })).shown
const classes = (shown: Awaited<ReturnType<typeof tree>>) => shown.findAll('li').map((one) => one.classes())

beforeEach(() => {
  service.forget()
  service.answers('GET /manage/v1/model', { objects: [] })
})

describe('steps', () => {
  it.each([
    ['REFUSED', 'by a rule', ['bad']],
    ['CHECK', 'false', ['bad']],
    ['CHECK', 'null', ['bad']],
    ['CHECK', 'true', []],
    ['WARNING', 'said', ['bad']],
    ['RULE', 'false', ['quiet']],
    ['CONDITION', 'false', ['quiet']],
    ['RULE', 'true', []],
    ['FORMULA', 'false', []],
  ])('of kind %s that came to %s stand out as %j', async (kind, result, expected) => {
    expect(classes(await tree([step(kind, result)]))).toEqual([expected])
  })

  it('stand under what they belong to, with what they took', async () => {
    const shown = await tree([
      step('RULE', 'true', { title: 'closeIt' }),
      step('STEP', 'done', { title: 'then', depth: 1, detail: 'set open = 0', micros: 49 }),
    ])
    const [outer, inner] = shown.findAll('li')
    expect(outer!.find('.kind').text()).toBe('rule')
    expect(outer!.text()).toContain('1.3 ms')
    expect(outer!.find('code').exists()).toBe(false)
    expect(inner!.find('.kind').text()).toBe('')
    expect(inner!.find('code').text()).toBe('set open = 0')
    expect(inner!.text()).toContain('0.0 ms')
    expect(inner!.attributes('style')).toContain('26px')
  })

  it('after the one that is looked at are yet to come', async () => {
    const shown = await tree([step('INPUT', '1'), step('INPUT', '2'), step('INPUT', '3')], 1)
    expect(classes(shown)).toEqual([[], ['here'], ['later']])
    await shown.findAll('li')[2]!.trigger('click')
    expect(shown.emitted('choose')).toEqual([[2]])
  })
})
