import type { ShapeView } from '@/api/connections'

/** A place in an answer that can be picked. */
export interface AnswerRow {
  /** Names of properties from the whole, or from an entry when it is in a list. */
  path: string[]
  /** Where the list is that it is an entry of, or undefined. */
  list?: string[]
  depth: number
  /** What it is called; [ ] for an entry of a list. */
  name: string
  sample: string
  isList: boolean
}

const LONGEST = 60
const MOST = 200

const shortly = (value: unknown) => {
  const text = typeof value === 'string' ? value : JSON.stringify(value)
  return text.length > LONGEST ? `${text.slice(0, LONGEST)}…` : text
}

/** The places of an answer, each with what stands there; of a list those of its first entry. */
export function answerRows(answer: unknown): AnswerRow[] {
  const rows: AnswerRow[] = []
  walk(answer, { path: [], depth: 0, name: 'the answer' }, rows)
  return rows
}

interface At {
  path: string[]
  list?: string[]
  depth: number
  name: string
}

function walk(value: unknown, at: At, rows: AnswerRow[]) {
  if (rows.length >= MOST) return
  const isList = Array.isArray(value)
  const isMap = typeof value === 'object' && value !== null && !isList
  rows.push({
    ...at,
    isList,
    sample: isList
      ? `${value.length} ${value.length === 1 ? 'entry' : 'entries'}`
      : isMap
        ? ''
        : shortly(value),
  })
  if (isList) {
    // Lists in lists cannot be picked from, so that they are not looked into.
    if (value.length && !at.list)
      walk(value[0], { path: [], list: at.path, depth: at.depth + 1, name: 'first entry' }, rows)
  } else if (isMap) {
    for (const [name, one] of Object.entries(value))
      walk(one, { ...at, path: [...at.path, name], depth: at.depth + 1, name }, rows)
  }
}

/** An answer made up of what a contract says, for when nobody answers. */
export function madeUp(shape: ShapeView): unknown {
  if (shape.items) return [madeUp(shape.items)]
  const entries = Object.entries(shape.properties)
  return entries.length ? Object.fromEntries(entries.map(([name, one]) => [name, madeUp(one)])) : shape.type
}
