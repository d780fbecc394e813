import { describe, expect, it } from 'vitest'
import { field } from '@/testing/design'
import { designLines, openFor, type DesignModel } from './designTree'

const owner: DesignModel = { name: 'Owner', key: ['code'], fields: [field('code'), field('name')], parts: [] }
const vessel: DesignModel = {
  name: 'Vessel',
  key: ['registration'],
  fields: [field('registration'), field('owner', { type: 'reference', to: 'Owner' })],
  parts: [],
}
const stay: DesignModel = {
  name: 'Stay',
  key: ['number'],
  numbered: 'number',
  fields: [
    field('number'),
    field('vessel', { type: 'reference', to: 'Vessel' }),
    field('nights', { readOnly: true }),
  ],
  parts: [
    { name: 'charges', label: 'Charges', fields: [field('quantity'), field('net', { readOnly: true })] },
  ],
}
const all = [owner, vessel, stay]

describe('the tree that is ticked', () => {
  it('shows what is behind references only where they are open', () => {
    expect(designLines(stay, all, new Set()).map((line) => line.path)).toEqual([
      'number',
      'vessel',
      'nights',
      'charges',
    ])
    const open = openFor(['vessel.owner.name', 'charges.net'])
    expect(designLines(stay, all, open).map((line) => line.path)).toEqual([
      'number',
      'vessel',
      'vessel.registration',
      'vessel.owner',
      'vessel.owner.code',
      'vessel.owner.name',
      'nights',
      'charges',
      'charges.quantity',
      'charges.net',
    ])
  })

  it('offers no writing of what the service sets or what belongs to another record', () => {
    const lines = designLines(stay, all, openFor(['vessel.name', 'charges.net']))
    const columns = (path: string) => lines.find((line) => line.path === path)!.columns
    expect(columns('vessel')).toContain('create')
    expect(columns('number')).not.toContain('create')
    expect(columns('nights')).not.toContain('update')
    expect(columns('vessel.registration')).toEqual(['read', 'query', 'filter', 'sort'])
    expect(columns('charges.quantity')).toEqual(['create', 'read', 'update', 'query', 'filter'])
    expect(columns('charges.net')).toEqual(['read', 'query', 'filter'])
  })
})
