import { mount } from '@vue/test-utils'
import { Input, InputNumber, Select, Switch, Textarea } from 'ant-design-vue'
import { describe, expect, it, vi } from 'vitest'
import type { FieldView } from '@/api/client'
import FieldInput from './FieldInput.vue'
import RecordPicker from './RecordPicker.vue'

vi.mock('./RecordPicker.vue', () => ({
  default: { name: 'RecordPicker', props: ['to', 'value', 'place', 'status'], template: '<i />' },
}))

const field = (more: Partial<FieldView>): FieldView =>
  ({
    name: 'size',
    label: 'Size',
    type: 'text',
    required: false,
    languages: [],
    choices: [],
    ...more,
  }) as FieldView

const shown = (more: Partial<FieldView>, value: unknown = null, props: object = {}) =>
  mount(FieldInput, { props: { field: field(more), value: value as never, ...props } })

describe('the input of a field', () => {
  it('takes text, and nothing for no text', async () => {
    const input = shown({}, 'a')
    expect(input.find('input').element.value).toBe('a')
    await input.findComponent(Input).vm.$emit('update:value', 'ab')
    await input.findComponent(Input).vm.$emit('update:value', '')
    expect(input.emitted('update')).toEqual([['ab'], [null]])
  })

  it('says what it is for', () => {
    expect(shown({}).find('input').attributes('aria-label')).toBe('Size')
    expect(shown({}, null, { id: 'f-size' }).find('input').attributes('id')).toBe('f-size')
  })

  it('is as high as long texts need', () => {
    expect(shown({ multiline: true }, 'a\nb').findComponent(Textarea).exists()).toBe(true)
  })

  it('takes numbers with the places they have', async () => {
    const input = shown({ type: 'decimal', scale: 2 }, 1.5).findComponent(InputNumber)
    expect(input.props('precision')).toBe(2)
    const taking = shown({ type: 'integer' }, 1)
    await taking.findComponent(InputNumber).vm.$emit('change', null)
    expect(taking.emitted('update')).toEqual([[null]])
  })

  it('shows the percent sign and the currency', () => {
    expect(shown({ type: 'percent' }, 19).findComponent(InputNumber).props('addonAfter')).toBe('%')
    expect(shown({ type: 'amount', currency: 'EUR' }, 1).findComponent(InputNumber).props('addonAfter')).toBe(
      'EUR',
    )
  })

  it('takes an amount with the currency of the record, and none without a value', async () => {
    const input = shown({ type: 'amount', currency: 'record', scale: 2 }, { value: 5, currency: 'NOK' })
    await input.findComponent(Input).vm.$emit('update:value', 'sek')
    await input.findComponent(InputNumber).vm.$emit('change', null)
    expect(input.emitted('update')).toEqual([[{ value: 5, currency: 'SEK' }], [null]])
  })

  it('lets one of the choices be taken, and none where none is needed', async () => {
    const choices = [
      { code: 'A', label: 'Apple' },
      { code: 'B', label: 'Pear' },
    ] as FieldView['choices']
    const input = shown({ type: 'choice', choices }, 'A')
    expect(input.findComponent(Select).props('options')).toEqual([
      { value: 'A', label: 'Apple' },
      { value: 'B', label: 'Pear' },
    ])
    expect(input.findComponent(Select).props('allowClear')).toBe(true)
    await input.findComponent(Select).vm.$emit('change', undefined)
    expect(input.emitted('update')).toEqual([[null]])
    expect(shown({ type: 'choice', choices, required: true }).findComponent(Select).props('allowClear')).toBe(
      false,
    )
  })

  it('is on or off', async () => {
    const input = shown({ type: 'boolean' }, null)
    expect(input.findComponent(Switch).props('checked')).toBe(false)
    await input.findComponent(Switch).vm.$emit('change', true)
    expect(input.emitted('update')).toEqual([[true]])
  })

  it('has a place for each language, and changes one of them', async () => {
    const input = shown({ languages: ['en', 'de'] }, { en: 'North', de: 'Nord' })
    const places = input.findAllComponents(Input)
    expect(places.map((one) => one.props('value'))).toEqual(['North', 'Nord'])
    await places[1].vm.$emit('update:value', '')
    expect(input.emitted('update')).toEqual([[{ en: 'North', de: null }]])
  })

  it('shows a moment as it is here, and gives it back as it is everywhere', async () => {
    const input = shown({ type: 'date-time' }, '2026-05-01T12:00:00Z')
    const local = input.find('input').element.value
    await input.findComponent(Input).vm.$emit('update:value', local)
    await input.findComponent(Input).vm.$emit('update:value', '')
    expect(input.emitted('update')).toEqual([['2026-05-01T12:00:00.000Z'], [null]])
  })

  it.each([
    ['date', 'date'],
    ['time', 'time'],
    ['email', 'email'],
    ['phone', 'tel'],
    ['web-address', 'url'],
    ['duration', 'text'],
  ])('asks the browser for a %s', (type, html) => {
    expect(
      shown({ type: type as FieldView['type'] })
        .find('input')
        .attributes('type'),
    ).toBe(html)
  })

  it('is red when something is wrong with it, and closed when it may not be changed', () => {
    const input = shown({}, 'a', { wrong: true, disabled: true }).findComponent(Input)
    expect(input.props('status')).toBe('error')
    expect(input.props('disabled')).toBe(true)
  })

  it('leaves the place out where a reference offers the same whatever the record', () => {
    const place = { object: 'Job', field: 'crane' }
    const picker = (offers: boolean) =>
      shown({ type: 'reference', to: 'Crane', offers } as Partial<FieldView>, 'K1', { place }).findComponent(
        RecordPicker,
      )
    expect(picker(false).props('place')).toBeUndefined()
    expect(picker(true).props('place')).toEqual(place)
  })
})
