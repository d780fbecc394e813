import { describe, expect, it } from 'vitest'
import type { ObjectView } from '@/api/client'
import { height, lines, links } from './layout'

describe('the diagram of a model', () => {
  const field = (name: string, more = {}) => ({ name, required: false, ...more })
  const object = (name: string, fields: object[], more = {}) =>
    ({ name, key: ['code'], fields, parts: [], ...more }) as unknown as ObjectView

  it('links what is shown, by line items too, and an object with itself', () => {
    const found = links([
      object('Stay', [field('berth', { to: 'Berth', required: true }), field('owner', { to: 'Hidden' })], {
        parts: [{ name: 'lines', fields: [field('tariff', { to: 'Tariff' })] }],
      }),
      object('Berth', [field('next', { to: 'Berth' })]),
      object('Tariff', []),
    ])
    expect(found.map((one) => `${one.id} ${one.from}>${one.to} ${one.label}`)).toEqual([
      'Stay.berth Stay>Berth berth',
      'Stay.lines.tariff Stay>Tariff lines.tariff',
      'Berth.next Berth>Berth next',
    ])
    expect(found[0].required).toBe(true)
    expect(found[1].part).toBe('lines')
  })

  it('shows so many lines of a box and counts the rest', () => {
    const many = Array.from({ length: 12 }, (_, at) => field(`f${at}`))
    const shown = lines(object('Stay', [field('code'), ...many], { parts: [{ name: 'lines', fields: [] }] }))
    expect(shown.map((one) => one.kind)).toEqual(['key', 'field', 'field', 'field', 'field', 'more', 'part'])
    expect(shown.at(-2)?.text).toBe('and 8 more')
    expect(height(object('Empty', []))).toBeGreaterThan(0)
    expect(lines(object('Small', [field('code'), field('name')])).map((one) => one.text)).toEqual([
      'code',
      'name',
    ])
  })
})
