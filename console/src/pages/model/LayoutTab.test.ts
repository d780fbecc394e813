import { Checkbox, Select } from 'ant-design-vue'
import { flushPromises, mount, type VueWrapper } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { ref } from 'vue'
import { readLayout } from '@/editor/layoutFile'
import ArrangedFields from './ArrangedFields.vue'
import LayoutTab from './LayoutTab.vue'

const field = (name: string, more: object = {}) => ({
  name,
  label: name.toUpperCase(),
  languages: [],
  ...more,
})
const objects = ref<object[]>([])
const draft = ref<object | undefined>()
vi.mock('@/composables/model', () => ({
  useModel: () => ({ objects }),
  useDraft: () => ({ data: draft }),
}))

const TEXT = `object: Job
key: code
fields:
  code: { type: text }
  due: { type: date }
  pay: { type: decimal }
  hand: { type: reference, to: Person }
form:
  sections:
    - heading: First
      fields: [code]
    - heading: Second
      fields: [due]
  leaveOut: [pay]
list: { columns: [code, due, pay], sort: -due }
`
let shown: VueWrapper
function tab(more: Record<string, unknown> = {}) {
  shown = mount(LayoutTab, {
    attachTo: document.body,
    props: { path: 'yard/objects/job.yaml', text: TEXT, object: 'Job', readOnly: false, ...more },
  })
}
const now = () => readLayout((shown.emitted('update')!.at(-1) as [string])[0])!
const select = (label: string) =>
  shown.findAllComponents(Select).find((one) => one.attributes('aria-label') === label)!
const list = (label: string) =>
  shown.findAllComponents(ArrangedFields).find((one) => one.props('label') === label)!
const names = (label: string) =>
  list(label)
    .props('fields')
    .map((one: { name: string }) => one.name)
const press = async (label: string) => {
  await shown.find(`[aria-label="${label}"]`).trigger('click')
  await flushPromises()
}

beforeEach(() => {
  objects.value = [
    {
      name: 'Job',
      fields: [field('code'), field('due'), field('pay'), field('hand', { to: 'Person' }), field('state')],
      lifecycle: { field: 'state' },
      inverses: [
        { name: 'steps', object: 'Step', field: 'job', plural: 'Steps' },
        { object: 'Note', field: 'about', plural: 'Notes' },
        { object: 'Bill', field: 'job', plural: 'Bills', part: 'lines' },
      ],
    },
    { name: 'Person', fields: [field('name'), field('phone')] },
    { name: 'Step', fields: [field('what')] },
  ]
  draft.value = { files: [] }
})
afterEach(() => shown.unmount())

describe('the form', () => {
  it('has sections, the fields in none, and those left out; not the state', () => {
    tab()
    expect(names('Fields of First')).toEqual(['code'])
    expect(names('Fields in no section')).toEqual(['hand'])
    expect(names('Fields left out')).toEqual(['pay'])
  })

  it('leaves out of what it offers what other files have placed', () => {
    draft.value = {
      files: [
        { path: 'yard/objects/job.yaml', text: TEXT },
        { path: 'more/extensions/job.yaml', text: 'extend: Job\nform:\n  leaveOut: [hand]\n' },
      ],
    }
    tab()
    expect(names('Fields in no section')).toEqual([])
  })

  it('takes a field where it is dropped, and nothing that is none', () => {
    tab()
    list('Fields of First').vm.$emit('dropped', 'hand', 0)
    expect(now().sections[0].fields).toEqual(['hand', 'code'])
    list('Fields in no section').vm.$emit('dropped', 'due', 0)
    expect(now().sections[1].fields).toEqual([])
    const before = shown.emitted('update')!.length
    list('Fields of First').vm.$emit('dropped', 'nothing', 0)
    expect(shown.emitted('update')).toHaveLength(before)
  })

  it('leaves a field out and shows it again', async () => {
    tab()
    const leave = shown.findAll('button').filter((one) => one.text() === 'Leave out')
    await leave[0]!.trigger('click')
    expect(now().leaveOut).toContain('code')
    await shown
      .findAll('button')
      .find((one) => one.text() === 'Show again')!
      .trigger('click')
    expect(now().leaveOut).toEqual([])
  })

  it('gets, loses and moves sections', async () => {
    tab()
    await press('Move section 2 up')
    expect(now().sections.map((one) => one.heading)).toEqual(['Second', 'First'])
    await press('Take away section 1')
    expect(now().sections.map((one) => one.heading)).toEqual(['Second'])
    await shown.find('button.add').trigger('click')
    expect(now().sections.at(-1)).toMatchObject({ heading: 'Section 3', fields: [] })
    expect(shown.find('[aria-label="Move section 1 up"]').attributes('disabled')).toBeDefined()
  })

  it('gives a field a whole line', () => {
    tab()
    shown.findAllComponents(Checkbox)[0]!.vm.$emit('change')
    expect(now().wide).toEqual(['code'])
  })

  it('says in an extension where a section comes', () => {
    tab({ text: 'extend: Job\nfields: {}\nform:\n  sections:\n    - heading: More\n      fields: [hand]\n' })
    select('Field that section 1 comes after').vm.$emit('change', 'due')
    expect(now().sections[0].after).toBe('due')
  })
})

describe('what stands beside the form', () => {
  it('is of the record that is referred to', () => {
    tab()
    expect(select('Details of HAND').props('options')).toEqual([
      { value: 'name', label: 'NAME' },
      { value: 'phone', label: 'PHONE' },
    ])
    select('Details of HAND').vm.$emit('change', ['phone'])
    expect(now().details).toEqual({ hand: ['phone'] })
  })

  it('are all related records, or those that are chosen with their columns', async () => {
    tab()
    const all = shown.findAllComponents(Checkbox).find((one) => one.text() === 'all there are')!
    expect(all.props('checked')).toBe(true)
    all.vm.$emit('change')
    expect(now().side).toEqual([])
    await shown.setProps({ text: (shown.emitted('update')!.at(-1) as [string])[0] })
    const options = select('Related records at the side').props('options') as { value: string }[]
    expect(options.map((one) => one.value)).toEqual(['steps', 'Note.about'])
    select('Related records at the side').vm.$emit('change', ['steps'])
    await shown.setProps({ text: (shown.emitted('update')!.at(-1) as [string])[0] })
    select('Columns of steps').vm.$emit('change', ['what'])
    expect(now().side).toEqual([{ records: 'steps', fields: ['what'] }])
  })
})

describe('the list', () => {
  it('has its columns in their order', () => {
    tab()
    select('Columns of the list').vm.$emit('change', ['code', 'state'])
    expect(now().columns).toEqual(['code', 'state'])
    list('Order of the columns').vm.$emit('dropped', 'code', 2)
    expect(now().columns).toEqual(['due', 'code', 'pay'])
    list('Order of the columns').vm.$emit('shifted', 'pay', -1)
    expect(now().columns).toEqual(['code', 'pay', 'due'])
    const before = shown.emitted('update')!.length
    list('Order of the columns').vm.$emit('shifted', 'pay', 1)
    expect(shown.emitted('update')).toHaveLength(before)
  })

  it('is sorted by a field, rising or falling', () => {
    tab()
    shown
      .findAllComponents(Checkbox)
      .find((one) => one.text() === 'falling')!
      .vm.$emit('change')
    expect(now().sort).toBe('due')
    select('First sort').vm.$emit('change', 'code')
    expect(now().sort).toBe('-code')
    select('First sort').vm.$emit('change', undefined)
    expect(now().sort).toBeUndefined()
  })
})

describe('a layout', () => {
  it('of a sealed package is only read', () => {
    tab({ readOnly: true })
    expect(shown.findAll('button').filter((one) => /Leave out|Section/.test(one.text()))).toEqual([])
    expect(select('First sort').props('disabled')).toBe(true)
  })

  it('waits for a text that can be read', () => {
    tab({ text: 'object: [Job' })
    expect(shown.text()).toContain('as soon as the text can be read')
  })
})
