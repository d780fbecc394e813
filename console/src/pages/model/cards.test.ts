// @vitest-environment happy-dom
import { mount } from '@vue/test-utils'
import { VueQueryPlugin } from '@tanstack/vue-query'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { nextTick } from 'vue'
import { api } from '@/api/client'
import { readChecks } from '@/editor/logicFile'
import ArrangedFields from './ArrangedFields.vue'
import CheckCard from './CheckCard.vue'
import DataEffects from './DataEffects.vue'
import PartHead from './PartHead.vue'

const editor = vi.hoisted(() => (name: string) => ({
  default: {
    name,
    props: ['text', 'role', 'object', 'objects', 'label', 'readOnly'],
    emits: ['update', 'touched'],
    template: `<div :data-editor="'${name}'">{{ text }}</div>`,
  },
}))
vi.mock('@/editor/LogicEditor.vue', () => editor('LogicEditor'))
vi.mock('@/conditions/ConditionInput.vue', () => editor('ConditionInput'))
vi.mock('@/api/client', () => ({
  api: { GET: vi.fn() },
  unwrap: (call: Promise<{ data: unknown }>) => call.then((answer) => answer.data),
}))

const JOB = `object: Job
key: code
lifecycle:
  initial: Asked
  states: [Asked, Done]
  transitions:
    finish: { from: Asked, to: Done }
fields:
  code: { type: text }
  size: { type: integer }
checks:
  - name: small
    that: size < 10
    say: Too large.
    at: size
  - { name: agreed, that: code != null, say: No code., before: [finish] }
`

describe('a check', () => {
  const card = (at: number, more: object = {}) => {
    const checks = readChecks(JOB)
    return mount(CheckCard, {
      props: { check: checks[at], at, text: JOB, object: 'Job', objects: [], readOnly: false, ...more },
    })
  }

  it('shows what must be true and what is said', () => {
    const shown = card(0)
    expect(shown.find('[data-editor=ConditionInput]').text()).toBe('size < 10')
    expect(shown.find('[data-editor=LogicEditor]').text()).toBe('Too large.')
    expect(shown.find<HTMLInputElement>('[aria-label="Name of the check"]').element.value).toBe('small')
  })

  it('is changed in its own place of the file', async () => {
    const shown = card(1)
    await shown.findComponent({ name: 'ConditionInput' }).vm.$emit('update', 'code != ""')
    const text = shown.emitted('update')?.[0][0] as string
    expect(readChecks(text).map((one) => one.that)).toEqual(['size < 10', 'code != ""'])
  })

  it('tells which of its texts is looked at', async () => {
    const shown = card(0)
    await shown.findComponent({ name: 'LogicEditor' }).vm.$emit('touched', 'Too large by {size}.')
    expect(shown.emitted('chosen')).toEqual([[{ role: 'SAY', object: 'Job', text: 'Too large by {size}.' }]])
  })

  it('only warns, and stops again', async () => {
    const shown = card(0)
    await shown.find('input[type=checkbox]').setValue(true)
    const warning = shown.emitted('update')?.[0][0] as string
    expect(readChecks(warning)[0].warning).toBe(true)
    const again = card(0, { check: readChecks(warning)[0], text: warning })
    await again.find('input[type=checkbox]').setValue(false)
    expect(readChecks(again.emitted('update')?.[0][0] as string)[0].warning).toBe(false)
  })

  it('goes, and leaves the others', async () => {
    const shown = card(0)
    await shown.find('[aria-label="Remove small"]').trigger('click')
    expect(readChecks(shown.emitted('update')?.[0][0] as string).map((one) => one.name)).toEqual(['agreed'])
  })

  it('before a transition is looked at nowhere else', () => {
    expect(card(0).find('[aria-label="When it is looked at"]').exists()).toBe(true)
    expect(card(1).find('[aria-label="When it is looked at"]').exists()).toBe(false)
  })

  it('of a delivered package is only looked at', () => {
    const shown = card(0, { readOnly: true })
    expect(shown.find('[aria-label="Remove small"]').exists()).toBe(false)
    expect(shown.findComponent({ name: 'LogicEditor' }).props('readOnly')).toBe(true)
  })
})

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

describe('the head of line items', () => {
  const TEXT =
    'object: Bill\nfields: { code: { type: text } }\nparts:\n  lines:\n    label: Lines\n    fields: {}\n'
  const head = (more: object = {}) =>
    mount(PartHead, {
      props: { text: TEXT, part: 'lines', released: [], readOnly: false, languages: ['en', 'de'], ...more },
    })

  it('has a label in each language', () => {
    const shown = head()
    expect(shown.find<HTMLInputElement>('[aria-label="Label of the line items"]').element.value).toBe('Lines')
    expect(shown.find('[aria-label="Label of the line items in de"]').attributes('placeholder')).toBe('Lines')
  })

  it('takes a name that can be one', async () => {
    const shown = head()
    const name = shown.find('[aria-label="Name of the line items"]')
    await name.setValue('Not a name')
    expect(shown.emitted('renamed')).toBeUndefined()
    await name.setValue('items')
    await name.trigger('change')
    expect(shown.emitted('renamed')).toEqual([['items']])
    expect(shown.emitted('update')?.at(-1)?.[0]).toContain('items:')
  })

  it('keeps what was released by its name before', async () => {
    const shown = head({ released: ['lines'] })
    await shown.find('[aria-label="Name of the line items"]').setValue('items')
    expect(shown.emitted('update')?.at(-1)?.[0]).toContain('was: lines')
  })

  it('says another language beside the main one', async () => {
    const shown = head()
    await shown.find('[aria-label="Label of the line items in de"]').setValue('Zeilen')
    expect(shown.emitted('update')?.at(-1)?.[0]).toContain('de: Zeilen')
  })

  it('of a delivered package cannot go', () => {
    expect(head({ readOnly: true }).text()).not.toContain('Remove')
  })
})

describe('fields in an order', () => {
  const FIELDS = ['a', 'b', 'c'].map((name) => ({ name, label: name.toUpperCase() }))
  const list = (more: object = {}) =>
    mount(ArrangedFields, {
      props: { fields: FIELDS, readOnly: false, empty: 'None yet.', label: 'Form', ...more },
      attachTo: document.body,
    })

  it('are dragged before one, or behind all', async () => {
    const shown = list()
    await shown.find('[data-field=c]').trigger('dragstart')
    await shown.find('[data-field=a]').trigger('drop')
    await shown.find('[data-field=a]').trigger('dragstart')
    await shown.find('ul').trigger('drop')
    expect(shown.emitted('dropped')).toEqual([
      ['c', 0],
      ['a', 3],
    ])
  })

  it('take nothing that was not dragged', async () => {
    const shown = list()
    await shown.find('ul').trigger('drop')
    expect(shown.emitted('dropped')).toBeUndefined()
  })

  it('are shifted with Alt and the arrows, and with nothing else', async () => {
    const shown = list()
    const b = shown.find('[data-field=b]')
    await b.trigger('keydown', { key: 'ArrowUp' })
    await b.trigger('keydown', { key: 'ArrowUp', altKey: true })
    await b.trigger('keydown', { key: 'ArrowDown', altKey: true })
    await b.trigger('keydown', { key: 'Enter', altKey: true })
    expect(shown.emitted('shifted')).toEqual([
      ['b', -1],
      ['b', 1],
    ])
  })

  it('say that there are none', () => {
    expect(list({ fields: [] }).text()).toBe('None yet.')
    expect(list({ readOnly: true }).find('[data-field=a]').attributes('draggable')).toBe('false')
  })
})
