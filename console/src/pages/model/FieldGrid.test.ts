import { mount, type VueWrapper } from '@vue/test-utils'
import { AutoComplete, Checkbox, InputNumber, Popconfirm, Select } from 'ant-design-vue'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { ref } from 'vue'
import { readFields, type Place } from '@/editor/objectFile'
import FieldGrid from './FieldGrid.vue'

vi.mock('@/composables/model', () => ({
  useModel: () => ({
    data: ref({
      routes: [
        {
          name: 'papers',
          label: 'Papers',
          steps: [
            { from: 'Part', to: 'Job', through: ['part'] },
            { from: 'Job', to: 'Job', part: 'hours', through: [] },
            { from: 'Job', to: 'Bill', through: ['job'] },
          ],
          travellers: [],
        },
        {
          name: 'other',
          label: 'Other',
          steps: [{ from: 'Bill', to: 'Note', through: ['bill'] }],
          travellers: [],
        },
      ],
    }),
  }),
}))

const TEXT = `object: Part
key: [maker, number]
fields:
  maker: { type: text, required: true, length: 9 }
  # Numbers begin at 1.
  number: { type: integer, required: true }
  weight: { type: decimal, scale: 2 }
  kind: { type: choice, choices: Kind }
  inside: { type: reference, to: Part }
parts:
  holes:
    fields:
      width: { type: decimal }
`
let shown: VueWrapper

function grid(more: Record<string, unknown> = {}) {
  const text = (more.text as string) ?? TEXT
  const place = (more.place as Place) ?? ['fields']
  shown = mount(FieldGrid, {
    global: { stubs: { RouterLink: true } },
    attachTo: document.body,
    props: {
      text,
      place,
      rows: readFields(text, place) ?? [],
      object: 'Part',
      objects: ['Part', 'Job'],
      lists: ['Kind'],
      lookups: ['tide-table.gauges'],
      released: ['maker'],
      languages: ['en', 'de'],
      readOnly: false,
      ...more,
    },
  })
}
const now = () => (shown.emitted('update')?.at(-1) as [string] | undefined)?.[0] ?? ''
const named = (label: string) => shown.find(`[aria-label="${label}"]`)
const part = (type: Parameters<VueWrapper['findAllComponents']>[0], label: string) =>
  shown
    .findAllComponents(type)
    .find((one) => one.find(`[aria-label="${label}"]`).exists() || one.attributes('aria-label') === label)!

afterEach(() => shown.unmount())

describe('the grid of fields', () => {
  it('shows each with what its type needs', () => {
    grid()
    expect(shown.findAll('tbody tr')).toHaveLength(5)
    expect(named('Length of maker').exists()).toBe(true)
    expect(named('Decimal places of weight').exists()).toBe(true)
    expect(named('Length of number').exists()).toBe(false)
    expect(named('Object that inside points to').exists()).toBe(true)
    expect(named('Default of inside').exists()).toBe(false)
    const keys = shown.findAllComponents(Checkbox).filter((one) => one.html().includes('is part of the key'))
    expect(keys.map((one) => one.props('checked'))).toEqual([true, true, false, false, false])
  })

  it('writes what is changed, and leaves the rest of the file as it is', () => {
    grid()
    part(InputNumber, 'Decimal places of weight').vm.$emit('change', 3)
    expect(now()).toBe(TEXT.replace('scale: 2', 'scale: 3'))
    part(Select, 'Type of number').vm.$emit('change', 'decimal')
    expect(now()).toContain('number: { type: decimal, required: true }')
    expect(now()).toContain('# Numbers begin at 1.')
    part(AutoComplete, 'Object that inside points to').vm.$emit('change', 'Job')
    expect(now()).toContain('to: Job')
  })

  it('takes a field into the key and out of it', () => {
    grid()
    part(Checkbox, 'number is part of the key').vm.$emit('change')
    expect(now()).toMatch(/key: \[? ?maker/)
    expect(now()).not.toMatch(/key: .*number/)
    part(Checkbox, 'weight is part of the key').vm.$emit('change')
    expect(now()).toMatch(/key: \[.*maker.*number.*weight.*\]/)
  })

  it('renames a field that was released so that its values stay', async () => {
    grid()
    await named('Name of maker').setValue('builder')
    await named('Name of maker').trigger('change')
    expect(now()).toContain('builder: { type: text, required: true, length: 9, was: maker }')
    expect(now()).toContain('key: [builder, number]')
  })

  it('moves fields, at the ends not further', async () => {
    grid()
    expect(named('Move maker up').attributes('disabled')).toBeDefined()
    expect(named('Move inside down').attributes('disabled')).toBeDefined()
    await named('Move weight up').trigger('click')
    expect(
      Object.keys(Object.fromEntries(readFields(now(), ['fields'])!.map((one) => [one.name, 1]))),
    ).toEqual(['maker', 'weight', 'number', 'kind', 'inside'])
  })

  it('says before a field goes whether values go with it', () => {
    grid()
    const asked = shown.findAllComponents(Popconfirm)
    expect(asked[0]!.props('title')).toContain('Its values go with the next release')
    expect(asked[2]!.props('title')).toBe('Remove this field?')
    asked[2]!.vm.$emit('confirm')
    expect(readFields(now(), ['fields'])!.map((one) => one.name)).not.toContain('weight')
  })

  it('adds one, and several that are pasted', async () => {
    grid()
    await shown.findAll('button').at(-1)!.trigger('click')
    expect(readFields(now(), ['fields'])).toHaveLength(6)
    const pasted = new Event('paste', { cancelable: true, bubbles: true })
    Object.assign(pasted, { clipboardData: { getData: () => 'Colour\ttext\nSold on\tdate\n' } })
    shown.find('.grid').element.dispatchEvent(pasted)
    expect(pasted.defaultPrevented).toBe(true)
    const fields = readFields(now(), ['fields'])!
    expect(fields.slice(-2).map((one) => [one.name, one.type])).toEqual([
      ['colour', 'text'],
      ['soldOn', 'date'],
    ])
  })

  it('leads to the choice list, which it tells from codes', async () => {
    grid()
    await named('Edit the list Kind').trigger('click')
    expect(shown.emitted('list')![0]).toEqual(['kind', 'Kind'])
    shown.unmount()
    grid({ text: TEXT.replace('choices: Kind', 'choices: [a, b]') })
    await named('Make a choice list for kind').trigger('click')
    expect(shown.emitted('list')![0]).toEqual(['kind', undefined])
  })

  it('opens the details of one field at a time', async () => {
    grid()
    await named('Details of maker').trigger('click')
    expect(shown.findAll('tr.more')).toHaveLength(1)
    await named('Details of weight').trigger('click')
    expect(shown.findAll('tr.more')).toHaveLength(1)
    expect(named('Details of weight').attributes('aria-expanded')).toBe('true')
  })

  it('of line items has no key', () => {
    grid({ place: ['parts', 'holes', 'fields'] })
    expect(shown.findAll('tbody tr')).toHaveLength(1)
    expect(named('width is part of the key').exists()).toBe(false)
    expect(named('width is unique').exists()).toBe(false)
    part(Checkbox, 'width is required').vm.$emit('change')
    expect(now()).toContain('width: { type: decimal, required: true }')
  })

  it('of a sealed package is only read', () => {
    grid({ readOnly: true })
    expect(named('Name of maker').attributes('disabled')).toBeDefined()
    expect(named('Remove maker').exists()).toBe(false)
    expect(shown.text()).not.toContain('Add field')
  })

  it('says how to begin where there are none', () => {
    grid({ rows: [] })
    expect(shown.text()).toContain('No fields yet.')
  })

  it('sends a field along the routes that go on from its object', async () => {
    grid()
    await named('Details of weight').trigger('click')
    expect(shown.text()).toContain('travels along Papers')
    expect(shown.text()).not.toContain('Other')
    const along = () => shown.findAllComponents(Checkbox).find((one) => one.text().includes('Papers'))!
    along().vm.$emit('change')
    expect(now()).toContain('weight: { type: decimal, scale: 2, travels: papers }')

    const sent = now()
    shown.unmount()
    grid({ text: sent })
    await named('Details of weight').trigger('click')
    const ends = part(Select, 'Where weight travels along papers')
    expect((ends.props() as Record<string, unknown>).options).toEqual([
      { value: 'Job' },
      { value: 'Job.hours' },
      { value: 'Bill' },
    ])
    ends.vm.$emit('change', ['Bill'])
    expect(readFields(now(), ['fields'])?.find((one) => one.name === 'weight')?.travels).toEqual([
      { route: 'papers', to: ['Bill'], follows: false },
    ])
    shown
      .findAllComponents(Checkbox)
      .find((one) => one.text().includes('change with it'))!
      .vm.$emit('change')
    expect(now()).toContain('travels: { route: papers, follows: true }')
    along().vm.$emit('change')
    expect(now()).toContain('weight: { type: decimal, scale: 2 }')
  })

  it('sends none of line items along', async () => {
    grid({ place: ['parts', 'holes', 'fields'] })
    await named('Details of width').trigger('click')
    expect(shown.text()).not.toContain('travels along')
  })
})
