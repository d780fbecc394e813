import { flushPromises, mount } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { callFunction, callOnEach } from '@/api/functions'
import { ApiProblem } from '@/api/http'
import { button, press, text } from '@/testing/service'
import ArgumentInputs from './ArgumentInputs.vue'
import CallFunction from './CallFunction.vue'

vi.mock('@/api/functions', () => ({ callFunction: vi.fn(), callOnEach: vi.fn() }))
vi.mock('./FieldInput.vue', () => ({
  default: { props: ['field', 'value', 'wrong'], template: '<i class="field">{{ field.name }}</i>' },
}))

const parameter = (name: string, more: object = {}) => ({
  name,
  label: name,
  required: false,
  list: false,
  typeWords: 'a list of text',
  ...more,
})
const CLOSE = {
  name: 'close',
  label: 'Close it',
  describe: 'Ends the order.',
  parameters: [parameter('on', { field: { name: 'on', type: 'date' }, required: true })],
}
const dialog = (keys: string[], definition: object = CLOSE) =>
  mount(CallFunction, { props: { object: 'Order', definition: definition as never, keys } })
const refusal = (detail: string, errors: [string, string][] = []) =>
  new ApiProblem({
    title: '',
    status: 422,
    detail,
    errors: errors.map(([name, message]) => ({ pointer: `/${name}`, code: '', message })),
  })

beforeEach(() => {
  vi.mocked(callFunction).mockReset().mockResolvedValue({ returns: false, result: null, warnings: [] })
  vi.mocked(callOnEach).mockReset()
})
afterEach(() => (document.body.innerHTML = ''))

describe('a function on a record', () => {
  it('is called with what was entered', async () => {
    const shown = dialog(['N/1'])
    expect(text()).toContain('Ends the order.')
    shown.findComponent(ArgumentInputs).vm.$emit('update', { on: '2026-05-01' })
    await press('Close it')
    expect(callFunction).toHaveBeenCalledWith('Order', 'close', 'N/1', { on: '2026-05-01' })
    expect(text()).toContain('Done.')
    expect(shown.emitted('done')).toHaveLength(1)
    await press('Close')
    expect(shown.emitted('left')).toHaveLength(1)
    expect(callFunction).toHaveBeenCalledTimes(1)
  })

  it.each([
    ['plain text', 'plain text'],
    [{ open: 0 }, '"open": 0'],
    [null, 'null'],
    [false, 'false'],
  ])('shows that %j came back', async (result, seen) => {
    vi.mocked(callFunction).mockResolvedValue({ returns: true, result: result as never, warnings: ['Late.'] })
    dialog(['N/1'])
    await press('Close it')
    expect(document.querySelector('[data-test=result]')?.textContent).toContain(seen)
    expect(text()).toContain('Late.')
  })

  it('shows what is wrong beside the argument', async () => {
    vi.mocked(callFunction).mockRejectedValue(refusal('One value is wrong.', [['on', 'It is over.']]))
    const shown = dialog(['N/1'])
    await press('Close it')
    expect(shown.findComponent(ArgumentInputs).props('messages')).toEqual({ on: 'It is over.' })
    expect(text()).not.toContain('One value is wrong.')
    expect(shown.emitted('done')).toBeUndefined()
  })

  it.each([
    ['that is about no argument', refusal('The order is closed.', [['total', 'It is paid.']])],
    ['of the whole', refusal('The order is closed.')],
    ['of another kind', new Error('The order is closed.')],
  ])('shows a refusal %s', async (_, problem) => {
    vi.mocked(callFunction).mockRejectedValue(problem)
    dialog(['N/1'])
    await press('Close it')
    expect(text()).toContain('The order is closed.')
    expect(button('Close it')).toBeDefined()
  })

  it('of no record has no key', async () => {
    dialog([], { ...CLOSE, parameters: [] })
    await press('Close it')
    expect(callFunction).toHaveBeenCalledWith('Order', 'close', undefined, {})
  })
})

describe('a function on many records', () => {
  const keys = Array.from({ length: 45 }, (_, at) => `N/${at}`)

  it('is called on a few at a time, and says what became of each', async () => {
    vi.mocked(callOnEach).mockImplementation((_object, _name, some) =>
      Promise.resolve({
        done: some.length - 1,
        failed: 1,
        results: some.map((key, at) => ({
          key,
          done: at > 0,
          warnings: at > 0 ? ['Late.'] : [],
          result: at > 0 ? 'ok' : undefined,
          problem: at > 0 ? undefined : 'It is paid.',
        })),
      } as never),
    )
    const shown = dialog(keys)
    expect(text()).toContain('Close it on 45 records')
    await press('Close it')
    await flushPromises()
    expect(vi.mocked(callOnEach).mock.calls.map((one) => one[2].length)).toEqual([20, 20, 5])
    expect(document.querySelector('[data-test=results]')?.textContent).toBe('42 done, 3 refused.')
    expect(text()).toContain('ok Late.')
    expect(text()).toContain('It is paid.')
    expect(shown.emitted('done')).toHaveLength(1)
  })

  it('keeps what was done when the service stops answering', async () => {
    vi.mocked(callOnEach)
      .mockResolvedValueOnce({
        done: 20,
        failed: 0,
        results: keys.slice(0, 20).map((key) => ({ key, done: true, warnings: [] })),
      } as never)
      .mockRejectedValue(new Error('The service does not answer.'))
    dialog(keys)
    await press('Close it')
    await flushPromises()
    expect(document.querySelector('[data-test=results]')?.textContent).toBe('20 done, 25 refused.')
    expect(text()).toContain('The service does not answer.')
  })
})

describe('arguments', () => {
  const TAGS = parameter('tags', { list: true, describe: 'What it is about.' })
  const inputs = (values: object, messages = {}) =>
    mount(ArgumentInputs, { props: { parameters: [TAGS] as never, values: values as never, messages } })
  const typed = async (shown: ReturnType<typeof inputs>, value: string) => {
    await shown.find('#a-tags').setValue(value)
    return (shown.emitted('update')!.at(-1) as [object])[0]
  }

  it('that are lists are entered as JSON', async () => {
    const shown = inputs({ other: 1 })
    expect(await typed(shown, '["a", "b"]')).toEqual({ other: 1, tags: ['a', 'b'] })
    expect(await typed(shown, ' ')).toEqual({ other: 1, tags: null })
  })

  it('that are no JSON yet are kept as they were typed', async () => {
    expect(await typed(inputs({}), '["a"')).toEqual({ tags: '["a"' })
  })

  it('are shown as they were entered, with what is said of them', () => {
    const shown = inputs({ tags: ['a'] })
    expect((shown.find('#a-tags').element as HTMLTextAreaElement).value).toBe('["a"]')
    expect(shown.text()).toContain('What it is about.')
    expect(inputs({}, { tags: 'No list.' }).find('[role=alert]').text()).toBe('No list.')
  })
})
