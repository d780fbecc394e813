import { mount } from '@vue/test-utils'
import { describe, expect, it, vi } from 'vitest'
import type { PartView } from '@/api/client'
import FieldInput from '@/components/FieldInput.vue'
import ItemTable from './ItemTable.vue'

vi.mock('@/components/FieldInput.vue', () => ({
  default: {
    name: 'FieldInput',
    props: ['field', 'value', 'disabled', 'wrong', 'title', 'place'],
    emits: ['update'],
    template: '<input :value="value" :disabled="disabled" />',
  },
}))

const PART = {
  name: 'lines',
  label: 'Lines',
  fields: [
    { name: 'what', label: 'What', type: 'text', required: true, languages: [], choices: [] },
    { name: 'many', label: 'Many', type: 'integer', languages: [], choices: [] },
  ],
} as unknown as PartView

const table = (items: object[], more: object = {}) =>
  mount(ItemTable, {
    props: {
      part: PART,
      items: items as never,
      titles: [],
      messages: {},
      disabled: false,
      flags: {},
      place: { object: 'Job' } as never,
      ...more,
    },
  })

describe('the line items of a record', () => {
  it('say that there are none, and take the first', async () => {
    const shown = table([])
    expect(shown.text()).toContain('None yet.')
    await shown.find('button').trigger('click')
    expect(shown.emitted('update')?.[0][0]).toHaveLength(1)
  })

  it('have a column for each field, with a star where a value is needed', () => {
    const heads = table([{}])
      .findAll('th')
      .map((one) => one.text())
    expect(heads).toEqual(['What*', 'Many', ''])
  })

  it('change one value and leave the rest', async () => {
    const shown = table([
      { line: 1, what: 'a', many: 1 },
      { line: 2, what: 'b', many: 2 },
    ])
    await shown.findAllComponents(FieldInput)[3].vm.$emit('update', 7)
    expect(shown.emitted('update')).toEqual([
      [
        [
          { line: 1, what: 'a', many: 1 },
          { line: 2, what: 'b', many: 7 },
        ],
      ],
    ])
  })

  it('go one by one', async () => {
    const shown = table([{ what: 'a' }, { what: 'b' }])
    await shown.find('[aria-label="Remove this item"]').trigger('click')
    expect(shown.emitted('update')).toEqual([[[{ what: 'b' }]]])
  })

  it('tell what is wrong at its place', () => {
    const shown = table([{}, {}], { messages: { 'lines/1/what': 'What is required.' } })
    expect(shown.find('[role=alert]').text()).toBe('What is required.')
    expect(shown.findAllComponents(FieldInput).map((one) => one.props('wrong'))).toEqual([
      false,
      false,
      true,
      false,
    ])
  })

  it('are closed where conditions say so, line by line', () => {
    const shown = table([{}, {}], { flags: { 'lines.1.many': { readOnly: true } } })
    expect(shown.findAllComponents(FieldInput).map((one) => one.props('disabled'))).toEqual([
      false,
      false,
      false,
      true,
    ])
  })

  it('cannot be added to or taken from when all of it is closed', () => {
    expect(table([{}], { disabled: true }).findAll('button')).toHaveLength(0)
  })
})
