/** As much of JSON Schema as the schemas of definition files use. */
export interface Schema {
  description?: string
  enum?: string[]
  type?: string | string[]
  properties?: Record<string, Schema>
  additionalProperties?: Schema | boolean
  items?: Schema
  anyOf?: Schema[]
}

/** Where in a YAML text somebody types. */
export interface Place {
  /** The keys that lead there; a list's items count as one step, `-`. */
  path: string[]
  /** Whether a key or the value of one is typed. */
  at: 'key' | 'value'
  /** The key whose value is typed. */
  key?: string
  /** What is typed of it so far. */
  typed: string
  /** Keys that stand beside it already. */
  beside: string[]
}

const LINE = /^(\s*)((?:- )*)(?:"?([^\s:#"'{}[\],][^:#"'{}[\],]*?)"?\s*:(?:\s+|$))?(.*)$/

interface Read {
  indent: number
  dashes: number
  key?: string
  rest: string
}

function readLine(line: string): Read {
  const found = LINE.exec(line)!
  const dashes = found[2].length / 2
  return { indent: found[1].length + found[2].length, dashes, key: found[3], rest: found[4] }
}

/** The place of an offset in a text. */
export function placeAt(text: string, offset: number): Place {
  const before = text.slice(0, offset)
  const lines = before.split('\n')
  const line = lines.at(-1)!
  const open = openFlow(line)
  const head = readLine(open === undefined ? line : line.slice(0, open))
  const path = ancestors(lines, head)
  for (let count = 0; count < head.dashes; count++) path.push('-')
  if (open !== undefined) {
    if (head.key) path.push(head.key)
    return inFlow(line.slice(open), path)
  }
  return head.key === undefined
    ? { path, at: 'key', typed: head.rest, beside: siblings(text, lines, head) }
    : { path, at: 'value', key: head.key, typed: head.rest, beside: [] }
}

/** Where the outermost brace begins that is still open at the end of a line. */
function openFlow(line: string): number | undefined {
  const opened: number[] = []
  let quote = ''
  for (let at = 0; at < line.length; at++) {
    const sign = line[at]
    if (quote) {
      if (sign === quote) quote = ''
    } else if (sign === '"' || sign === "'") quote = sign
    else if (sign === '{') opened.push(at)
    else if (sign === '}') opened.pop()
  }
  return quote ? undefined : opened[0]
}

/** The place at the end of what stands behind an open brace. */
function inFlow(text: string, path: string[]): Place {
  const levels: { keys: string[]; key?: string }[] = []
  let word = ''
  for (const sign of text) {
    const level = levels.at(-1)
    if (sign === '{') {
      if (level?.key) path = [...path, level.key]
      levels.push({ keys: [] })
      word = ''
    } else if (sign === '}') {
      levels.pop()
      if (levels.length) path = path.slice(0, -1)
      word = ''
    } else if (sign === ',' && level) {
      level.key = undefined
      word = ''
    } else if (sign === ':' && level && level.key === undefined) {
      level.key = word.trim()
      level.keys.push(level.key)
      word = ''
    } else word += sign
  }
  const level = levels.at(-1)!
  const typed = word.trimStart()
  return level.key === undefined
    ? { path, at: 'key', typed, beside: level.keys }
    : { path, at: 'value', key: level.key, typed, beside: level.keys }
}

function ancestors(lines: string[], head: Read): string[] {
  const path: string[] = []
  let indent = head.indent - head.dashes * 2
  for (let at = lines.length - 2; at >= 0 && indent > 0; at--) {
    if (!lines[at].trim() || lines[at].trim().startsWith('#')) continue
    const above = readLine(lines[at])
    if (above.key === undefined && above.dashes === 0) continue
    if (above.indent < indent) {
      if (above.key !== undefined) path.unshift(above.key)
      for (let count = 0; count < above.dashes; count++) path.unshift('-')
      indent = above.indent - above.dashes * 2
    } else if (above.dashes > 0 && above.indent === indent) {
      // The first key of the list item this line belongs to.
      for (let count = 0; count < above.dashes; count++) path.unshift('-')
      indent = above.indent - above.dashes * 2
    }
  }
  return path
}

/** Keys of the same indentation around a line, up to where it is left. */
function siblings(text: string, lines: string[], head: Read): string[] {
  const all = text.split('\n')
  const own = lines.length - 1
  const found: string[] = []
  for (const step of [-1, 1]) {
    for (let at = own + step; at >= 0 && at < all.length; at += step) {
      if (!all[at].trim()) continue
      const other = readLine(all[at])
      if (other.indent < head.indent) break
      if (other.indent === head.indent && other.key !== undefined) found.push(other.key)
      const isAnotherItem = other.dashes > 0 && other.indent <= head.indent
      if (isAnotherItem) break
    }
  }
  return found
}

/** The schemas something at a path may have. */
export function schemasAt(schema: Schema, path: string[]): Schema[] {
  let now = [schema]
  for (const step of path) {
    now = now.flatMap(alternatives).flatMap((one) => {
      if (step === '-') return one.items ? [one.items] : []
      const own = one.properties?.[step]
      if (own) return [own]
      return typeof one.additionalProperties === 'object' ? [one.additionalProperties] : []
    })
  }
  return now.flatMap(alternatives)
}

function alternatives(schema: Schema): Schema[] {
  return schema.anyOf ? schema.anyOf.flatMap(alternatives) : [schema]
}

/** One thing that can stand at a place. */
export interface Proposal {
  label: string
  insert: string
  detail?: string
}

/** What can stand at a place, by the schema of the file. */
export function proposalsAt(schema: Schema, place: Place): Proposal[] {
  if (place.at === 'key') {
    const found = new Map<string, Proposal>()
    for (const one of schemasAt(schema, place.path)) {
      for (const [name, value] of Object.entries(one.properties ?? {})) {
        if (!place.beside.includes(name) && !found.has(name))
          found.set(name, { label: name, insert: `${name}: `, detail: value.description })
      }
    }
    return [...found.values()]
  }
  const values = schemasAt(schema, [...place.path, place.key!]).flatMap((one) => {
    if (one.enum) return one.enum
    return [one.type].flat().includes('boolean') && [one.type].flat().length === 1 ? ['true', 'false'] : []
  })
  return [...new Set(values)].map((value) => ({ label: value, insert: value }))
}
