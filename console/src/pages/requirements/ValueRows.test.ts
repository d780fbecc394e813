import { mount } from '@vue/test-utils'
import { Select } from 'ant-design-vue'
import { describe, expect, it } from 'vitest'
import TypedInput from '@/components/TypedInput.vue'
import YesNo from '@/components/YesNo.vue'
import ValueRows from './ValueRows.vue'

const field = (name: string, type: string, more: object = {}) => ({
  name,
  type,
  label: name.toUpperCase(),
  choices: [],
  ...more,
})
const FIELDS = [
  field('code', 'text'),
  field('size', 'integer'),
  field('due', 'date'),
  field('urgent', 'boolean'),
  field('kind', 'choice', { choices: [{ code: 'wide', label: 'Wide' }] }),
  field('note', 'text'),
]
const PARTS = [
  { name: 'steps', label: 'Steps', fields: [field('what', 'text'), field('minutes', 'integer')] },
]

const rows = (modelValue: object, more: object = {}) =>
  mount(ValueRows, { props: { modelValue, fields: FIELDS, parts: PARTS, label: 'Job', ...more } as never })
const last = (shown: ReturnType<typeof rows>) => shown.emitted('update:modelValue')?.at(-1)?.[0]
const typing = (shown: ReturnType<typeof rows>, place: number, value: string) =>
  shown.findAllComponents(TypedInput)[place]!.vm.$emit('change', { target: { value } })

describe('values of a record', () => {
  it('are entered as their types are', () => {
    const shown = rows({ code: 'A', due: '2026-05-01', urgent: true, kind: 'wide' })
    expect(shown.findAllComponents(TypedInput).map((one) => one.attributes('type'))).toEqual(['text', 'date'])
    expect(shown.findComponent(YesNo).props('value')).toBe(true)
    expect(shown.findAllComponents(Select)[1]!.props('options')).toEqual([{ value: 'wide', label: 'Wide' }])
    expect(shown.text()).toContain('CODE')
  })

  it('become numbers where they are, and nothing when they are emptied', () => {
    const shown = rows({ size: 1, code: 'A' })
    typing(shown, 0, '12')
    expect(last(shown)).toEqual({ size: 12, code: 'A' })
    typing(shown, 0, 'many')
    expect(last(shown)).toEqual({ size: 'many', code: 'A' })
    typing(shown, 1, '  ')
    expect(last(shown)).toMatchObject({ code: null })
    typing(shown, 1, '007')
    expect(last(shown)).toMatchObject({ code: '007' })
  })

  it('may be lists and objects, written as in a file', () => {
    const shown = rows({ note: { en: 'One' } })
    expect(shown.findComponent(TypedInput).props('value')).toBe('{ en: One }')
    typing(shown, 0, '[1, 2]')
    expect(last(shown)).toEqual({ note: [1, 2] })
    typing(shown, 0, '{ broken')
    expect(last(shown)).toEqual({ note: '{ broken' })
  })

  it('are added with what their type begins with', () => {
    const shown = rows({})
    const adding = shown.findAllComponents(Select).at(-1)!
    expect((adding.props('options') as { value: string }[]).map((one) => one.value)).toEqual([
      'code',
      'size',
      'due',
      'urgent',
      'kind',
      'note',
      'steps',
    ])
    adding.vm.$emit('change', 'urgent')
    expect(last(shown)).toEqual({ urgent: true })
    adding.vm.$emit('change', 'code')
    expect(last(shown)).toMatchObject({ code: '' })
    adding.vm.$emit('change', 'steps')
    expect(last(shown)).toMatchObject({ steps: [{}] })
  })

  it('are taken away', async () => {
    const shown = rows({ code: 'A', size: 1 })
    await shown.find('[aria-label="Take away code"]').trigger('click')
    expect(last(shown)).toEqual({ size: 1 })
  })
})

describe('line items', () => {
  it('are rows of their own', async () => {
    const shown = rows({ steps: [{ what: 'Lift' }, { minutes: 5 }] })
    expect(shown.findAllComponents(ValueRows)).toHaveLength(2)
    typing(shown, 1, '7')
    expect(last(shown)).toEqual({ steps: [{ what: 'Lift' }, { minutes: 7 }] })
    await shown.find('[aria-label="Take away line 1 of steps"]').trigger('click')
    expect(last(shown)).toMatchObject({ steps: [{ minutes: 7 }] })
  })

  it('can be added', async () => {
    const shown = rows({ steps: [] })
    const add = shown.findAll('button').find((one) => one.text().includes('Line'))!
    await add.trigger('click')
    expect(last(shown)).toEqual({ steps: [{}] })
  })
})

describe('what is only shown', () => {
  it('offers nothing to change', () => {
    const shown = rows({ code: 'A', steps: [{}] }, { readOnly: true })
    expect(shown.findAll('button')).toHaveLength(0)
    expect(shown.findAllComponents(Select)).toHaveLength(0)
  })
})
