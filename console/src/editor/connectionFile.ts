import { isMap, isScalar } from 'yaml'
import type { DocumentView, OperationView, ShapeView } from '@/api/connections'
import { nameOf, optional, put, read, write } from './yamlFile'

/** Codes with labels, as the file says it. */
export interface LookupText {
  name: string
  call: string
  items?: string
  key?: string
  label?: string
  search?: string
  one?: string
  keep?: string
  whenDown?: string
}

/** A question that steps ask, as the file says it. */
export interface CallText {
  name: string
  call: string
  describe?: string
  /** How many parameters are said; they are edited in the file. */
  parameters: string[]
  returns?: string
  at?: string
  keep?: string
}

/** A connection as its file says it. */
export interface ConnectionFile {
  name: string
  label?: string
  describe?: string
  contract?: string
  setting: string
  lookups: LookupText[]
  calls: CallText[]
}

export type Section = 'lookups' | 'calls'
const LOOKUP_KEYS = ['call', 'items', 'key', 'label', 'search', 'one', 'keep', 'whenDown'] as const

/** The connection in a file, or undefined when the text is none or cannot be read just now. */
export function readConnection(text: string): ConnectionFile | undefined {
  const document = read(text)
  const name = document.get('connection')
  if (document.errors.length || typeof name !== 'string') return undefined
  const entries = (section: Section) => {
    const map = document.get(section)
    return isMap(map) ? map.items : []
  }
  return {
    name,
    label: optional(document.get('label')),
    describe: optional(document.get('describe')),
    contract: optional(document.get('contract')),
    setting: optional(document.getIn(['address', 'setting'])) ?? name,
    lookups: entries('lookups').map((pair) => {
      const lookup: LookupText = { name: nameOf(pair), call: '' }
      if (isMap(pair.value))
        for (const key of LOOKUP_KEYS) {
          const said = optional(pair.value.get(key))
          if (said !== undefined) lookup[key] = said
        }
      return lookup
    }),
    calls: entries('calls').map((pair) => {
      const said = isMap(pair.value) ? pair.value : undefined
      const parameters = said?.get('parameters')
      const returns = said?.get('returns', true) as unknown
      return {
        name: nameOf(pair),
        call: optional(said?.get('call')) ?? '',
        describe: optional(said?.get('describe')),
        parameters: isMap(parameters) ? parameters.items.map(nameOf) : [],
        returns: isScalar(returns)
          ? String(returns.value)
          : isMap(returns)
            ? (optional(returns.get('type')) ?? 'context')
            : undefined,
        at: optional(said?.get('at')),
        keep: optional(said?.get('keep')),
      }
    }),
  }
}

/** Sets or, with nothing, takes away what the connection is called or is for. */
export function setOnConnection(text: string, key: 'label' | 'describe', value: string): string {
  const document = read(text)
  if (value) put(document, [key], value)
  else document.delete(key)
  return write(document)
}

/** Sets or, with nothing, takes away something that is said of a lookup or call. */
export function setOn(text: string, section: Section, name: string, key: string, value: string): string {
  const document = read(text)
  if (value) put(document, [section, name, key], value)
  else document.deleteIn([section, name, key])
  return write(document)
}

/** Takes a lookup or call away. */
export function removeFrom(text: string, section: Section, name: string): string {
  const document = read(text)
  document.deleteIn([section, name])
  const left = document.get(section)
  if (isMap(left) && !left.items.length) document.delete(section)
  return write(document)
}

/** Gives a lookup or call another name. */
export function rename(text: string, section: Section, from: string, to: string): string {
  const document = read(text)
  const map = document.get(section)
  const pair = isMap(map) ? map.items.find((one) => nameOf(one) === from) : undefined
  if (!pair || !isScalar(pair.key)) return text
  pair.key.value = to
  return write(document)
}

/** Adds what an operation gives: a lookup where it gives a list of codes, otherwise a call. */
export function addOperation(text: string, operation: OperationView): string {
  const document = read(text)
  const lookup = guessLookup(operation)
  const section: Section = lookup ? 'lookups' : 'calls'
  const there = document.get(section)
  const taken = isMap(there) ? there.items.map(nameOf) : []
  const name = freeName(nameFor(operation), taken)
  put(document, [section, name], document.createNode(lookup ?? guessCall(operation)))
  return write(document)
}

/** A connection made of some operations of a document. */
export function newConnectionText(of: {
  name: string
  document: DocumentView
  operations: OperationView[]
}): string {
  const lines = [`connection: ${of.name}`]
  if (of.document.title) lines.push(`label: ${JSON.stringify(of.document.title)}`)
  lines.push(`contract: ${of.name}.openapi.json`)
  return of.operations.reduce(addOperation, `${lines.join('\n')}\n`)
}

const FIELD = /^[a-z][A-Za-z0-9]*$/
/** Names that have a meaning in logic already. */
const RESERVED = ['id', 'version', 'line', 'this', 'old', 'key', 'retired', 'item', 'true', 'false', 'null']

/** A name as fields have them: page-size becomes pageSize. */
export function fieldName(written: string): string {
  const words = written.split(/[^A-Za-z0-9]+/).filter(Boolean)
  const joined = words
    .map((word, at) => (at ? word[0].toUpperCase() + word.slice(1) : word[0].toLowerCase() + word.slice(1)))
    .join('')
  const name = /^[a-z]/.test(joined) ? joined : `v${joined}`
  return RESERVED.includes(name) ? `its${name[0].toUpperCase()}${name.slice(1)}` : name
}

/** A name for a connection: Tide table becomes tide-table. */
export function connectionName(title: string): string {
  const name = title
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^[^a-z]+|-+$/g, '')
  return name.slice(0, 40).replace(/-+$/, '') || 'outside'
}

function nameFor(operation: OperationView): string {
  const steps = operation.path.split('/').filter((one) => one && !one.startsWith('{'))
  return fieldName(steps.at(-1) ?? 'call')
}

function freeName(name: string, taken: string[]): string {
  let free = name
  for (let count = 2; taken.includes(free); count++) free = `${name}${count}`
  return free
}

const CODES = ['code', 'key', 'id', 'number', 'iso', 'symbol', 'value']
const LABELS = ['name', 'label', 'title', 'description', 'text']

/** The list in an answer that is one, or has one directly in it. */
function listOf(shape: ShapeView | null | undefined): { items: string; entry: ShapeView } | undefined {
  if (shape?.items) return { items: '', entry: shape.items }
  for (const [name, one] of Object.entries(shape?.properties ?? {}))
    if (one.items) return { items: name, entry: one.items }
  return undefined
}

function guessLookup(operation: OperationView): Record<string, string> | undefined {
  const list = listOf(operation.answer)
  const needs = operation.parameters.some((one) => one.required)
  if (operation.method !== 'GET' || !list || needs) return undefined
  const names = Object.keys(list.entry.properties)
  const key = CODES.find((one) => names.includes(one)) ?? names[0]
  if (!key) return undefined
  const label = LABELS.find((one) => names.includes(one))
  const search = operation.parameters.find((one) =>
    ['q', 'query', 'search', 'name', 'text'].includes(one.name),
  )
  return {
    call: `GET ${operation.path}`,
    ...(list.items ? { items: list.items } : {}),
    key,
    ...(label ? { label } : {}),
    ...(search ? { search: search.name } : {}),
  }
}

/** The word for values of a type of JSON, as in `string (date)`. */
export function typeFor(written: string): string {
  if (written.startsWith('string (date-time')) return 'date-time'
  if (written.startsWith('string (date')) return 'date'
  if (written.startsWith('integer')) return 'integer'
  if (written.startsWith('number')) return 'decimal'
  if (written.startsWith('boolean')) return 'boolean'
  return 'text'
}

const isPlain = (shape: ShapeView) => !shape.items && !Object.keys(shape.properties).length

function guessCall(operation: OperationView): Record<string, unknown> {
  const parameters: Record<string, unknown> = {}
  for (const one of operation.parameters.filter((each) => each.required)) {
    const name = FIELD.test(one.name) && !RESERVED.includes(one.name) ? one.name : fieldName(one.name)
    parameters[name] = name === one.name ? typeFor(one.type) : { type: typeFor(one.type), sent: one.name }
  }
  return {
    call: `${operation.method} ${operation.path}`,
    ...(Object.keys(parameters).length ? { parameters } : {}),
    ...guessReturns(operation.answer),
  }
}

function guessReturns(answer: ShapeView | null | undefined): Record<string, unknown> {
  if (!answer) return {}
  if (isPlain(answer)) return { returns: typeFor(answer.type) }
  const plain = Object.entries(answer.properties).filter(([name, one]) => isPlain(one) && FIELD.test(name))
  if (!plain.length) return {}
  const last = plain.at(-1)!
  return { returns: typeFor(last[1].type), at: last[0] }
}

/** A line of text for how an operation is told from others. */
export const written = (operation: OperationView) => `${operation.method} ${operation.path}`
