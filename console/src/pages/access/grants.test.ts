import { describe, expect, it } from 'vitest'
import type { ServiceView } from '@/api/client'
import { choices, grantOf, textOf } from './grants'

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
