import { describe, expect, it } from 'vitest'
import {
  addResource,
  listOf,
  newServiceText,
  nextVersionText,
  readService,
  removeResource,
  resourceName,
  setOnResource,
  setPreset,
  tick,
  ticked,
  usualLists,
  type DesignObject,
} from './serviceFile'

const field = (name: string, type = 'text', more = {}) => ({
  name,
  type,
  readOnly: false,
  required: false,
  onRead: false,
  ...more,
})
const stay: DesignObject = {
  name: 'Stay',
  key: ['number'],
  title: 'number',
  numbered: 'number',
  fields: [
    field('number'),
    field('vessel', 'reference', { to: 'Vessel' }),
    field('arrival', 'date'),
    field('state', 'choice', { readOnly: true }),
    field('nights', 'integer', { readOnly: true, onRead: true }),
    field('remarks'),
  ],
  parts: [
    {
      name: 'charges',
      fields: [
        field('tariff', 'reference'),
        field('quantity', 'decimal'),
        field('net', 'amount', { readOnly: true }),
      ],
    },
  ],
  lifecycle: { field: 'state', transitions: [{ name: 'confirm', label: 'Confirm' }] },
}
const everything = { create: true, read: true, update: true, query: true }
const text = `# for the booking site
service: berth-desk
version: 2
protocols: [rest, odata]
resources:
  stays:
    object: Stay # shown with charges
    create: { fields: [vessel, arrival, charges(tariff, quantity)] }
    read:   { fields: [all, vessel.owner.name] }
    query:
      fields: [number, state]
      filter: [state]
    calls: [confirm]
`

describe('a service file', () => {
  it('is read with its lists put together again', () => {
    const service = readService(text)!
    expect(service.protocols).toEqual(['rest', 'odata'])
    expect(service.version).toBe(2)
    const { lists, calls, remove } = service.resources[0]
    expect(lists.create).toEqual(['vessel', 'arrival', 'charges(tariff, quantity)'])
    expect(lists.filter).toEqual(['state'])
    expect(lists.sort).toBeUndefined()
    expect(lists.update).toBeUndefined()
    expect([calls, remove]).toEqual([['confirm'], false])
  })

  it('is no service while the text is broken or is something else', () => {
    expect(readService('service: [')).toBeUndefined()
    expect(readService('object: Stay')).toBeUndefined()
  })

  it('speaks REST when it does not say', () => {
    expect(readService('service: yard\nresources: {}')!.protocols).toEqual(['rest'])
  })
})

describe('ticks', () => {
  it('spell out what a list says in short', () => {
    expect([...ticked(['all', 'vessel.name'], stay, 'read')]).toEqual([
      'number',
      'vessel',
      'arrival',
      'state',
      'nights',
      'remarks',
      'charges.tariff',
      'charges.quantity',
      'charges.net',
      'vessel.name',
    ])
    expect([...ticked(['all'], stay, 'create')]).toEqual([
      'vessel',
      'arrival',
      'remarks',
      'charges.tariff',
      'charges.quantity',
    ])
    expect([...ticked(['charges'], stay, 'update')]).toEqual(['charges.tariff', 'charges.quantity'])
  })

  it('become the shortest list, which for read is all', () => {
    const read = ticked(['all', 'vessel.name'], stay, 'read')
    expect(listOf(read, stay, 'read')).toEqual(['all', 'vessel.name'])
    read.delete('remarks')
    read.delete('charges.net')
    expect(listOf(read, stay, 'read')).toEqual([
      'number',
      'vessel',
      'arrival',
      'state',
      'nights',
      'vessel.name',
      'charges(tariff, quantity)',
    ])
  })

  it('change one list of the text and leave comments and the others', () => {
    const ticking = tick(text, 'stays', stay, 'create', ['remarks'], true)
    expect(ticking).toContain('# for the booking site')
    expect(ticking).toContain('# shown with charges')
    expect(ticking).toContain('[vessel, arrival, remarks, charges(tariff, quantity)]')
    expect(readService(ticking)!.resources[0].lists.create).toEqual([
      'vessel',
      'arrival',
      'remarks',
      'charges(tariff, quantity)',
    ])
    expect(readService(ticking)!.resources[0].lists.read).toEqual(['all', 'vessel.owner.name'])
  })

  it('bring an operation with the first and take it away with the last', () => {
    const ticking = tick(text, 'stays', stay, 'update', ['arrival'], true)
    expect(readService(ticking)!.resources[0].lists.update).toEqual(['arrival'])
    const again = tick(ticking, 'stays', stay, 'update', ['arrival'], false)
    expect(readService(again)!.resources[0].lists.update).toBeUndefined()
    const unsorted = tick(text, 'stays', stay, 'filter', ['state'], false)
    expect(readService(unsorted)!.resources[0].lists).toMatchObject({ query: ['number', 'state'] })
    const gone = tick(text, 'stays', stay, 'query', ['number', 'state'], false)
    expect(readService(gone)!.resources[0].lists.filter).toBeUndefined()
  })
})

describe('what a new resource begins with', () => {
  it('reads everything, creates without what is worked out, changes all but the key', () => {
    const vessel: DesignObject = { ...stay, key: ['arrival'], numbered: null }
    const lists = usualLists(vessel, everything)
    expect(lists.read).toEqual(['all'])
    expect(lists.create).toEqual(['number', 'vessel', 'arrival', 'remarks', 'charges(tariff, quantity)'])
    expect(lists.update).not.toContain('arrival')
  })

  it('finds by what tells records apart, and sorts by what has an order', () => {
    const lists = usualLists(stay, everything)
    expect(lists.query).toEqual(['number', 'vessel', 'arrival', 'state'])
    expect(lists.filter).toEqual(['number', 'vessel', 'arrival', 'state'])
    expect(lists.sort).toEqual(['number', 'arrival'])
  })

  it('is written so that it reads back, and can be taken away', () => {
    const made = addResource(newServiceText('quay', ['rest', 'soap']), 'stays', stay, {
      create: false,
      read: true,
      update: false,
      query: true,
    })
    const service = readService(made)!
    expect(service.protocols).toEqual(['rest', 'soap'])
    expect(service.resources[0]).toMatchObject({ name: 'stays', object: 'Stay' })
    expect(service.resources[0].lists.create).toBeUndefined()
    expect(readService(removeResource(made, 'stays'))!.resources).toEqual([])
  })
})

describe('what is said of a resource', () => {
  it('is set and taken away', () => {
    const now = setOnResource(text, 'stays', 'where', 'state = "Alongside"')
    expect(readService(now)!.resources[0].where).toBe('state = "Alongside"')
    expect(setOnResource(now, 'stays', 'where', '')).not.toContain('where')
    expect(readService(setOnResource(text, 'stays', 'calls', []))!.resources[0].calls).toEqual([])
    expect(readService(setOnResource(text, 'stays', 'needsVersion', true))!.resources[0].needsVersion).toBe(
      true,
    )
  })

  it('presets values of new records', () => {
    const now = setPreset(text, 'stays', 'remarks', 'from the site')
    expect(readService(now)!.resources[0].preset).toEqual({ remarks: 'from the site' })
    expect(setPreset(now, 'stays', 'remarks', undefined)).not.toContain('preset')
  })

  it('goes on in the next version', () => {
    expect(readService(nextVersionText(text, 3))).toEqual({ ...readService(text), version: 3 })
  })

  it('has a name made for addresses', () => {
    expect(resourceName('Craft inspections')).toBe('craft-inspections')
    expect(resourceName('Gäste')).toBe('gaste')
  })
})
