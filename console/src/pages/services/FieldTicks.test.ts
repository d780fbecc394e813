import { Checkbox, Input, Select } from 'ant-design-vue'
import { mount } from '@vue/test-utils'
import { beforeEach, describe, expect, it } from 'vitest'
import { readService } from '@/editor/serviceFile'
import { field } from '@/testing/design'
import FieldTicks from './FieldTicks.vue'
import PresetRows from './PresetRows.vue'
import type { DesignModel } from './designTree'

const OWNER: DesignModel = { name: 'Owner', key: ['code'], fields: [field('code'), field('name')], parts: [] }
/** A key of two fields, a reference, line items and a field that is worked out. */
const JOB: DesignModel = {
  name: 'Job',
  key: ['place', 'number'],
  fields: [
    field('place'),
    field('number', { type: 'integer' }),
    field('note'),
    field('owner', { type: 'reference', to: 'Owner' }),
    field('days', { readOnly: true }),
  ],
  parts: [{ name: 'steps', label: 'Steps', fields: [field('what'), field('cost', { readOnly: true })] }],
}
const TEXT = `service: yard
version: 1
protocols: [rest]
resources:
  jobs:
    object: Job
    preset: { note: '"begun"' }
    create: { fields: [place, number] }
    query: { fields: [place, number] }
`

let text = TEXT
beforeEach(() => (text = TEXT))
const resource = () => readService(text)!.resources[0]!
const props = (readOnly = false) => ({
  text,
  resource: resource(),
  object: JOB,
  objects: [OWNER, JOB],
  readOnly,
})

describe('fields of a resource', () => {
  /** The table, which shows the text it has led to. */
  const table = (readOnly = false) => {
    const shown = mount(FieldTicks, { props: props(readOnly) })
    const box = (label: string) =>
      shown.findAllComponents(Checkbox).find((one) => one.find('input').attributes('aria-label') === label)!
    return {
      shown,
      box,
      click: async (label: string) => {
        box(label).vm.$emit('change', {})
        text = (shown.emitted('update')!.at(-1) as [string])[0]
        await shown.setProps(props(readOnly))
      },
      rows: () => shown.findAll('tbody code').map((one) => one.text()),
    }
  }

  it('are ticked in the column of what may be done with them', async () => {
    const { box, click } = table()
    expect(box('Create place').props('checked')).toBe(true)
    expect(box('Create note').props('checked')).toBe(false)
    await click('Create note')
    expect(resource().lists.create).toEqual(['place', 'number', 'note'])
    expect(box('Create note').props('checked')).toBe(true)
    await click('Create note')
    expect(resource().lists.create).toEqual(['place', 'number'])
  })

  it('are ticked all at once, and none are after that', async () => {
    const { box, click } = table()
    expect(box('Query: every field').props('indeterminate')).toBe(true)
    await click('Query: every field')
    expect(box('Query: every field').props('checked')).toBe(true)
    await click('Query: every field')
    expect(resource().lists.query).toBeUndefined()
  })

  it('cannot be filtered by where nothing is listed', async () => {
    const { box, click } = table()
    expect(box('Filter place').props('disabled')).toBe(false)
    await click('Filter place')
    expect(resource().lists.filter).toEqual(['place'])
    await click('Query: every field')
    await click('Query: every field')
    expect(box('Filter place').props('disabled')).toBe(true)
    expect(box('Sort place').props('disabled')).toBe(true)
  })

  it('behind a reference and of line items stand where they are opened', async () => {
    const { shown, rows, click } = table()
    expect(rows()).toEqual(['place', 'number', 'note', 'owner', 'days', 'steps'])
    await shown.find('[aria-label="Open owner"]').trigger('click')
    await shown.find('[aria-label="Open steps"]').trigger('click')
    expect(rows()).toEqual([
      'place',
      'number',
      'note',
      'owner',
      'code',
      'name',
      'days',
      'steps',
      'what',
      'cost',
    ])
    await click('Query owner.name')
    expect(resource().lists.query).toContain('owner.name')
    await shown.find('[aria-label="Close owner"]').trigger('click')
    expect(rows()).toEqual(['place', 'number', 'note', 'owner', 'days', 'steps', 'what', 'cost'])
  })

  it('of line items are ticked by their part', async () => {
    const { box, click } = table()
    await click('Create steps')
    expect(box('Create steps').props('checked')).toBe(true)
    expect(box('Create steps').props('indeterminate')).toBe(false)
  })

  it('that are worked out cannot be given', () => {
    const { box } = table()
    expect(box('Create days')).toBeUndefined()
    expect(box('Update days')).toBeUndefined()
    expect(box('Read days')).toBeDefined()
  })

  it('stay as they are in a package that is sealed', () => {
    const { shown } = table(true)
    expect(shown.findAllComponents(Checkbox).every((one) => one.props('disabled'))).toBe(true)
  })
})

describe('presets of a resource', () => {
  const rows = (readOnly = false) => mount(PresetRows, { props: props(readOnly) })
  const changed = (shown: ReturnType<typeof rows>) => {
    text = (shown.emitted('update')!.at(-1) as [string])[0]
    return resource().preset
  }

  it('are of fields that a caller is not asked for', () => {
    const shown = rows()
    expect(shown.findAll('code').map((one) => one.text())).toEqual(['note'])
    expect(shown.findComponent(Select).props('options')).toEqual([{ value: 'owner' }])
  })

  it('begin empty, are changed and taken away', async () => {
    const begun = rows()
    begun.findComponent(Select).vm.$emit('change', 'owner')
    expect(changed(begun)).toEqual({ note: '"begun"', owner: '' })

    const shown = rows()
    expect(shown.findComponent(Select).exists()).toBe(false)
    const note = shown.findAllComponents(Input)[0]!
    note.vm.$emit('change', { target: { value: '"made"' } })
    expect(changed(shown)).toMatchObject({ note: '"made"' })
    await shown.find('[aria-label="Remove the preset of note"]').trigger('click')
    expect(changed(shown)).not.toHaveProperty('note')
  })

  it('stay as they are in a package that is sealed', () => {
    const shown = rows(true)
    expect(shown.findComponent(Input).props('disabled')).toBe(true)
    expect(shown.find('button').exists()).toBe(false)
  })
})
