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
  transitions: calls.map((address) => ({ address, label: address })),
})
const services = [
  {
    name: 'berth-desk',
    resources: [resource('stays', ['create'], ['check-in']), resource('berths', ['query'])],
  },
  { name: 'berth-desk', resources: [resource('stays', ['read'])] },
  { name: 'yard', resources: [resource('jobs', ['query'], ['start'])] },
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
    expect(offered.resources).toEqual(['*', 'berths', 'stays'])
    expect(offered.operations).toEqual(['*', 'checkIn', 'create', 'read'])
  })

  it('offer everything where all is chosen', () => {
    expect(choices(services, grantOf('*')).operations).toEqual([
      '*',
      'checkIn',
      'create',
      'query',
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
