import type { LifecycleRow } from '@/editor/logicFile'

export interface StateBox {
  name: string
  x: number
  y: number
}
export interface Arrow {
  name: string
  path: string
  labelX: number
  labelY: number
}

export const BOX = { width: 112, height: 34, gapX: 84, gapY: 62 }

/** Puts states in columns by how many transitions lead there from the first, and draws the arrows. */
export function stateLayout(lifecycle: LifecycleRow): {
  boxes: StateBox[]
  arrows: Arrow[]
  width: number
  height: number
} {
  const depth = new Map<string, number>([[lifecycle.initial, 0]])
  const waiting = [lifecycle.initial]
  while (waiting.length) {
    const at = waiting.shift()!
    for (const one of lifecycle.transitions) {
      if (one.from.includes(at) && !depth.has(one.to)) {
        depth.set(one.to, depth.get(at)! + 1)
        waiting.push(one.to)
      }
    }
  }
  const rows = new Map<number, number>()
  const boxes = lifecycle.states.map((name) => {
    const column = depth.get(name) ?? 0
    const row = rows.get(column) ?? 0
    rows.set(column, row + 1)
    return { name, x: column * (BOX.width + BOX.gapX) + 8, y: row * (BOX.height + BOX.gapY) + 26 }
  })
  const boxOf = new Map(boxes.map((box) => [box.name, box]))
  const arrows = lifecycle.transitions.flatMap((one) =>
    one.from.flatMap((from) => {
      const a = boxOf.get(from)
      const b = boxOf.get(one.to)
      return a && b ? [arrow(one.label || one.name, a, b)] : []
    }),
  )
  return {
    boxes,
    arrows,
    width: Math.max(...boxes.map((box) => box.x + BOX.width), 0) + 16,
    height: Math.max(...boxes.map((box) => box.y + BOX.height), 0) + 30,
  }
}

function arrow(name: string, a: StateBox, b: StateBox): Arrow {
  const middle = BOX.height / 2
  if (b.x > a.x) {
    const [x1, y1, x2, y2] = [a.x + BOX.width, a.y + middle, b.x, b.y + middle]
    const bend = (x2 - x1) / 2
    return {
      name,
      path: `M${x1},${y1} C${x1 + bend},${y1} ${x2 - bend},${y2} ${x2 - 3},${y2}`,
      labelX: (x1 + x2) / 2,
      labelY: (y1 + y2) / 2 - 6,
    }
  }
  if (b.x === a.x) {
    const down = b.y > a.y
    const [x, y1, y2] = [a.x + BOX.width / 2, down ? a.y + BOX.height : a.y, down ? b.y : b.y + BOX.height]
    return { name, path: `M${x},${y1} L${x},${y2 + (down ? -3 : 3)}`, labelX: x + 34, labelY: (y1 + y2) / 2 }
  }
  const [x1, x2, y] = [a.x + BOX.width / 2, b.x + BOX.width / 2, Math.min(a.y, b.y)]
  return {
    name,
    path: `M${x1},${a.y} C${x1},${y - 34} ${x2},${y - 34} ${x2},${b.y - 3}`,
    labelX: (x1 + x2) / 2,
    labelY: y - 22,
  }
}
