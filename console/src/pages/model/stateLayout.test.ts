import { describe, expect, it } from 'vitest'
import type { LifecycleRow } from '@/editor/logicFile'
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
