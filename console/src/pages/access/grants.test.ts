import { describe, expect, it } from 'vitest'
import type { ServiceView } from '@/api/client'
import { choices, grantOf, grantWords, textOf } from './grants'

const resource = (name: string, operations: string[], calls: string[] = []) => ({
  name,
  object: name,
  objectLabel: name,
  key: [],
  presets: {},
  operations: Object.fromEntries(operations.map((one) => [one, []])),
  filterable: [],
  sortable: [],
  calls: calls.map((name) => ({ name, label: name })),
})
const services = [
  {
    name: 'berth-desk',
    resources: [resource('stays', ['create'], ['checkIn']), resource('berths', ['query'])],
    functions: [{ object: 'Stay', call: { name: 'quote' } }],
    events: ['StayEnded'],
  },
  { name: 'berth-desk', resources: [resource('stays', ['read'])], functions: [], events: [] },
  { name: 'yard', resources: [resource('jobs', ['query'], ['start'])], functions: [], events: [] },
] as unknown as ServiceView[]

describe('grants', () => {
  it('are read and written', () => {
    expect(textOf(grantOf('berth-desk/stays/create'))).toBe('berth-desk/stays/create')
    expect(textOf(grantOf('yard'))).toBe('yard/*/*')
    const some = 'berth-desk/stays/read where berth.pier.code = "N/1"'
    expect(textOf(grantOf(some))).toBe(some)
  })

  it('offer what the service and resource before have, calls among it', () => {
    const offered = choices(services, grantOf('berth-desk/stays/*'))
    expect(offered.services).toEqual(['*', 'berth-desk', 'yard'])
    expect(offered.resources).toEqual(['*', 'berths', 'events', 'functions', 'stays'])
    expect(offered.operations).toEqual(['*', 'checkIn', 'create', 'read'])
  })

  it('offer functions and events in the place of a resource', () => {
    expect(choices(services, grantOf('berth-desk/functions/*')).operations).toEqual(['*', 'quote'])
    expect(choices(services, grantOf('berth-desk/events/*')).operations).toEqual(['*', 'read'])
  })

  it('offer everything where all is chosen', () => {
    expect(choices(services, grantOf('*')).operations).toEqual([
      '*',
      'checkIn',
      'create',
      'query',
      'quote',
      'read',
      'start',
    ])
  })
})

describe('a grant on records', () => {
  it('is said in a sentence', () => {
    expect(grantWords({ object: '*', actions: ['VIEW'] })).toBe('everything: view')
    expect(grantWords({ object: 'Stay', actions: [] })).toBe('Stay: nothing')
    expect(
      grantWords({
        object: 'Stay',
        actions: ['VIEW', 'EDIT'],
        where: 'state = "Departed"',
        hidden: ['remarks'],
        readOnly: ['nightlyRate'],
      }),
    ).toBe('Stay: view, edit, where state = "Departed", without remarks, not changing nightlyRate')
  })
})
