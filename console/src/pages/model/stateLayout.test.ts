import { describe, expect, it } from 'vitest'
import type { LifecycleRow } from '@/editor/logicFile'
import type { ObjectView } from '@/api/client'
import { height, lines, links } from './layout'
import { BOX, stateLayout } from './stateLayout'

const lifecycle = (states: string[], transitions: [string, string[], string][]) =>
  ({
    initial: states[0],
    states,
    transitions: transitions.map(([name, from, to]) => ({ name, label: '', from, to })),
  }) as unknown as LifecycleRow

describe('the drawing of states', () => {
  it('puts each as far to the right as steps lead there', () => {
    const drawn = stateLayout(
      lifecycle(
        ['Asked', 'Begun', 'Done', 'Dropped'],
        [
          ['begin', ['Asked'], 'Begun'],
          ['finish', ['Begun'], 'Done'],
          ['drop', ['Asked', 'Begun'], 'Dropped'],
        ],
      ),
    )
    const x = Object.fromEntries(drawn.boxes.map((box) => [box.name, box.x]))
    expect(x.Asked).toBeLessThan(x.Begun)
    expect(x.Begun).toBe(x.Dropped)
    expect(x.Begun).toBeLessThan(x.Done)
    expect(drawn.arrows.map((one) => one.name)).toEqual(['begin', 'finish', 'drop', 'drop'])
    expect(drawn.width).toBeGreaterThan(x.Done + BOX.width)
  })

  it('draws back, down and up without a step that is nowhere', () => {
    const drawn = stateLayout(
      lifecycle(
        ['A', 'B', 'C'],
        [
          ['go', ['A'], 'B'],
          ['back', ['B'], 'A'],
          ['also', ['A'], 'C'],
          ['down', ['B'], 'C'],
          ['up', ['C'], 'B'],
          ['lost', ['A'], 'Nowhere'],
        ],
      ),
    )
    const path = Object.fromEntries(drawn.arrows.map((one) => [one.name, one.path]))
    expect(Object.keys(path)).toEqual(['go', 'back', 'also', 'down', 'up'])
    expect(path.down).toContain(' L')
    expect(path.up).toContain(' L')
    expect(path.back).toContain(' C')
    expect(new Set(Object.values(path)).size).toBe(5)
  })

  it('of nothing is empty', () => {
    expect(stateLayout(lifecycle([], []))).toMatchObject({ boxes: [], arrows: [], width: 16, height: 30 })
  })
})

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
