import { Select } from 'ant-design-vue'
import { mount } from '@vue/test-utils'
import { describe, expect, it, vi } from 'vitest'
import { ref } from 'vue'
import { readLifecycle } from '@/editor/logicFile'
import LifecycleTab from './LifecycleTab.vue'

vi.mock('@/composables/model', () => ({ useModel: () => ({ objects: ref([]) }) }))
vi.mock('./CheckCard.vue', () => ({
  default: { props: ['check', 'at'], template: '<p class="check">{{ at }} {{ check.name }}</p>' },
}))

const PLAIN = 'object: Order\nkey: code\nfields:\n  code: { type: text, length: 9 }\n'
const WITH = `${PLAIN}lifecycle:
  initial: Open
  states: [Open, Held, Closed]
  transitions:
    hold: { from: Open, to: Held }
    close: { from: [Open, Held], to: Closed, label: Close it }
checks:
  - { name: paid, that: open = 0, say: Pay first., before: close }
`
const tab = (text: string, readOnly = false) =>
  mount(LifecycleTab, { props: { text, object: 'Order', readOnly } })
const select = (shown: ReturnType<typeof tab>, label: string, place = 0) =>
  shown.findAllComponents(Select).filter((one) => one.attributes('aria-label') === label)[place]!
const now = (shown: ReturnType<typeof tab>) =>
  readLifecycle((shown.emitted('update')!.at(-1) as [string])[0])!

describe('a lifecycle', () => {
  it('is begun where there is none', async () => {
    const shown = tab(PLAIN)
    expect(shown.text()).toContain('With one, a record has a state, and only transitions change it.')
    await shown.find('button').trigger('click')
    expect(now(shown)).toMatchObject({ initial: 'Open', states: ['Open', 'Closed'] })
  })

  it('is not begun in a package that is sealed', () => {
    expect(tab(PLAIN, true).find('button').exists()).toBe(false)
  })

  it('is drawn with its states and transitions', () => {
    const shown = tab(WITH)
    const words = shown.findAll('svg text').map((one) => one.text())
    expect(words).toEqual(expect.arrayContaining(['Open', 'Held', 'Closed', 'hold', 'Close it']))
    expect(shown.findAll('rect.first')).toHaveLength(1)
  })

  it('gets other states and another beginning', () => {
    const shown = tab(WITH)
    select(shown, 'States').vm.$emit('change', ['Open', 'Closed', 'Lost'])
    expect(now(shown).states).toEqual(['Open', 'Closed', 'Lost'])
    select(shown, 'State of a new record').vm.$emit('change', 'Held')
    expect(now(shown).initial).toBe('Held')
  })

  it('leads from one state or from several', () => {
    const shown = tab(WITH)
    select(shown, 'From', 0).vm.$emit('change', ['Open', 'Held'])
    expect(now(shown).transitions[0]).toMatchObject({ name: 'hold', from: ['Open', 'Held'] })
    select(shown, 'From', 1).vm.$emit('change', ['Held'])
    expect(shown.emitted('update')!.at(-1)![0]).toMatch(/close: \{ from: Held, to: Closed/)
    select(shown, 'To', 0).vm.$emit('change', 'Closed')
    expect(now(shown).transitions[0]).toMatchObject({ to: 'Closed' })
  })

  it('gets a transition with a name of its own, which is changed and taken away', async () => {
    const shown = tab(WITH.replace('hold:', 'newTransition:'))
    const add = shown.findAll('button').find((one) => one.text() === 'Add transition')!
    await add.trigger('click')
    expect(now(shown).transitions.map((one) => one.name)).toEqual([
      'newTransition',
      'close',
      'newTransition2',
    ])
    await shown.findAll('input.name')[0]!.setValue('suspend')
    expect(now(shown).transitions.map((one) => one.name)).toEqual(['suspend', 'close'])
    await shown.find('[aria-label="Remove close"]').trigger('click')
    expect(now(shown).transitions.map((one) => one.name)).toEqual(['newTransition'])
  })

  it('says what must hold before each transition', () => {
    const shown = tab(WITH)
    const [hold, close] = shown.findAll('section.before').map((one) => one.text())
    expect(hold).toContain('nothing is asked')
    expect(close).toContain('Before Close it')
    expect(close).toContain('1 must hold')
    expect(shown.findAll('.check').map((one) => one.text())).toEqual(['0 paid'])
  })

  it('gets a condition before a transition', async () => {
    const shown = tab(WITH)
    const add = shown.findAll('button').find((one) => one.text() === 'Condition before hold')!
    await add.trigger('click')
    expect(shown.emitted('update')!.at(-1)![0]).toMatch(/name: check2\s+before:\s+- hold/)
  })
})
