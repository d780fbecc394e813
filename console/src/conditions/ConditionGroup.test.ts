import { mount } from '@vue/test-utils'
import { Select } from 'ant-design-vue'
import { describe, expect, it } from 'vitest'
import { nextTick, ref } from 'vue'
import type { FieldView, ObjectView } from '@/api/client'
import ConditionGroup from './ConditionGroup.vue'
import { newGroup, type Draft } from './parts'

const field = (name: string, type: string, more = {}) =>
  ({ name, label: name.toUpperCase(), type, choices: [], languages: [], ...more }) as unknown as FieldView
const job = {
  name: 'Job',
  label: 'Job',
  fields: [
    field('code', 'text'),
    field('urgent', 'boolean'),
    field('state', 'choice', { choices: [{ code: 'open', label: 'Open' }] }),
  ],
  parts: [{ name: 'lines', label: 'Lines', fields: [field('cost', 'decimal')] }],
  inverses: [],
} as unknown as ObjectView

function open() {
  const draft = ref<Draft>(newGroup())
  const wrapper = mount(ConditionGroup, {
    props: {
      scope: { objects: [job], object: job },
      modelValue: draft.value,
      'onUpdate:modelValue': (now: Draft) => {
        draft.value = now
        void wrapper.setProps({ modelValue: now })
      },
    },
  })
  const press = async (name: string) => {
    await wrapper
      .findAll('button')
      .find((one) => one.text() === name)!
      .trigger('click')
    await nextTick()
  }
  const choose = async (label: string, value: string) => {
    const select = wrapper.findAllComponents(Select).find((one) => one.attributes('aria-label') === label)!
    select.vm.$emit('change', value)
    await nextTick()
    await nextTick()
  }
  return { draft, wrapper, press, choose }
}

describe('conditions that are put together', () => {
  it('begin unfinished, in words, and end as what is meant', async () => {
    const { draft, wrapper, press, choose } = open()
    await press('Condition')
    expect(wrapper.text()).toContain('Choose a field.')
    await choose('Field of the condition', 'state')
    expect(wrapper.text()).toContain('Give a value.')
    await choose('How it stands', 'ONE_OF')
    await choose('Values', ['open'] as never)
    expect(draft.value.parts[0]).toMatchObject({
      of: { kind: 'FIELD', text: 'state' },
      relation: 'ONE_OF',
      values: [{ kind: 'VALUE', type: 'TEXT', text: 'open' }],
    })
    expect(wrapper.find('.missing').exists()).toBe(false)
  })

  it('ask of a truth whether it holds, with no value to give', async () => {
    const { draft, press, choose } = open()
    await press('Condition')
    await choose('Field of the condition', 'urgent')
    expect(draft.value.parts[0]).toMatchObject({ relation: 'HOLDS', values: [] })
  })

  it('reach over lines, with the fields of a line first', async () => {
    const { draft, wrapper, press } = open()
    await press('Over lines')
    expect(draft.value.parts[0]).toMatchObject({ kind: 'ITEMS', list: 'lines', name: 'line' })
    const fields = wrapper
      .findAllComponents(Select)
      .find((one) => one.attributes('aria-label') === 'Field of the condition')!
    const groups = fields.props('options') as { label: string; options: { value: string }[] }[]
    expect(groups[0]).toMatchObject({ label: 'Lines', options: [{ value: 'line.cost' }] })
  })

  it('may be meant the other way round, and are taken away one by one', async () => {
    const { draft, wrapper, press, choose } = open()
    await press('Condition')
    await press('Text')
    await choose('How many of these must hold', 'none')
    expect(draft.value).toMatchObject({ all: false, negated: true })
    await wrapper.find('[aria-label="Take away condition 1"]').trigger('click')
    expect(draft.value.parts.map((one) => one.kind)).toEqual(['TEXT'])
  })
})
