import { COLUMNS, type Column, type DesignField, type DesignObject } from '@/editor/serviceFile'

/** A line of the tree that is ticked: a field, line items, or what is behind a reference. */
export interface DesignLine {
  path: string
  name: string
  label: string
  type: string
  depth: number
  /** The columns it can be ticked in. */
  columns: Column[]
  /** Whether there are lines below it that can be shown. */
  opens: boolean
  /** The paths below line items, which are ticked together; empty for a field. */
  items: string[]
}

interface Labelled extends DesignField {
  label: string
}
/** An object with what people read. */
export interface DesignModel extends DesignObject {
  fields: Labelled[]
  parts: { name: string; label: string; fields: Labelled[] }[]
}

const READS: Column[] = ['read', 'query', 'filter', 'sort']
/** Of line items, which lists are not sorted by. */
const SHOWN: Column[] = ['read', 'query', 'filter']
/** A path may be of any depth; beyond this it is written in the text. */
const DEEPEST = 4

/** The tree of an object, with what is below the lines that are open. */
export function designLines(object: DesignModel, objects: DesignModel[], open: Set<string>): DesignLine[] {
  const lines: DesignLine[] = []

  function field(one: Labelled, path: string, depth: number, columns: Column[]) {
    const target = one.to ? objects.find((other) => other.name === one.to) : undefined
    const opens = !!target && depth < DEEPEST
    lines.push({ path, name: one.name, label: one.label, type: one.type, depth, columns, opens, items: [] })
    if (opens && open.has(path))
      for (const below of target.fields)
        field(
          below,
          `${path}.${below.name}`,
          depth + 1,
          columns.filter((column) => READS.includes(column)),
        )
  }

  for (const one of object.fields) {
    const isGiven = !one.readOnly && one.name !== object.numbered
    field(one, one.name, 0, isGiven ? [...COLUMNS] : READS)
  }
  for (const part of object.parts) {
    const items = part.fields.map((one) => `${part.name}.${one.name}`)
    lines.push({
      path: part.name,
      name: part.name,
      label: part.label,
      type: 'line items',
      depth: 0,
      columns: ['create', 'read', 'update', 'query'],
      opens: true,
      items,
    })
    if (open.has(part.name))
      for (const one of part.fields)
        field(
          one,
          `${part.name}.${one.name}`,
          1,
          one.readOnly ? SHOWN : ['create', 'read', 'update', 'query', 'filter'],
        )
  }
  return lines
}

/** The lines that must be open so that every ticked path is seen. */
export function openFor(paths: Iterable<string>): Set<string> {
  const open = new Set<string>()
  for (const path of paths) {
    const steps = path.split('.')
    for (let depth = 1; depth < steps.length; depth++) open.add(steps.slice(0, depth).join('.'))
  }
  return open
}
