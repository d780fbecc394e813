import { isMap, isScalar, isSeq, YAMLMap } from 'yaml'
import { flow, nameOf, optional, put, read, write } from './yamlFile'

/** What can be said of a field in a resource, in the order of the columns. */
export const COLUMNS = ['create', 'read', 'update', 'query', 'filter', 'sort'] as const
export type Column = (typeof COLUMNS)[number]

/** As much of a field as is needed to say what can be done with it. */
export interface DesignField {
  name: string
  type: string
  readOnly: boolean
  required: boolean
  onRead: boolean
  standard?: string | null
  to?: string | null
}

/** As much of an object as is needed here. */
export interface DesignObject {
  name: string
  key: string[]
  title?: string | null
  numbered?: string | null
  fields: DesignField[]
  parts: { name: string; fields: DesignField[] }[]
  lifecycle?: { field: string; transitions: { name: string; label: string }[] } | null
  functions?: { name: string; label: string; external: boolean; onRecord: boolean }[]
}

/** One resource as the file says it; an operation that is not offered has no list. */
export interface ResourceFile {
  name: string
  object: string
  describe?: string
  where?: string
  remove: boolean
  needsVersion: boolean
  calls: string[]
  preset: Record<string, string>
  lists: Partial<Record<Column, string[]>>
}

/** A service as its file says it. */
export interface ServiceFile {
  name: string
  version: number
  label?: string
  describe?: string
  protocols: string[]
  /** Functions on no record, as in Stay.quote. */
  functions: string[]
  events: string[]
  resources: ResourceFile[]
}

/** The service in a file, or undefined when the text is no service file or cannot be read just now. */
export function readService(text: string): ServiceFile | undefined {
  const document = read(text)
  const name = document.get('service')
  if (document.errors.length || typeof name !== 'string') return undefined
  const resources = document.get('resources')
  return {
    name,
    version: Number(document.get('version') ?? 1),
    label: optional(document.get('label')),
    describe: optional(document.get('describe')),
    protocols: document.has('protocols') ? texts(document.get('protocols')) : ['rest'],
    functions: pieces(texts(document.get('functions'))),
    events: pieces(texts(document.get('events'))),
    resources: isMap(resources)
      ? resources.items.flatMap((pair) => (isMap(pair.value) ? [resource(nameOf(pair), pair.value)] : []))
      : [],
  }
}

function resource(name: string, at: YAMLMap): ResourceFile {
  const lists: Partial<Record<Column, string[]>> = {}
  for (const column of COLUMNS) {
    const [operation, key] = placeOf(column)
    const said = at.getIn([operation, key])
    if (at.has(operation) && (said !== undefined || key === 'fields')) lists[column] = pieces(texts(said))
  }
  const preset = at.get('preset')
  return {
    name,
    object: String(at.get('object') ?? ''),
    describe: optional(at.get('describe')),
    where: optional(at.get('where')),
    remove: at.get('remove') === true,
    needsVersion: at.get('needsVersion') === true,
    calls: pieces(texts(at.get('calls'))),
    preset: isMap(preset)
      ? Object.fromEntries(
          preset.items.map((pair) => [nameOf(pair), isScalar(pair.value) ? String(pair.value.value) : '']),
        )
      : {},
    lists,
  }
}

/** Where in a resource a column's list stands. */
function placeOf(column: Column): [string, string] {
  return column === 'filter' || column === 'sort' ? ['query', column] : [column, 'fields']
}

function texts(value: unknown): string[] {
  if (isSeq(value)) return value.items.map((one) => (isScalar(one) ? String(one.value) : ''))
  return value === undefined || value === null ? [] : [String(value)]
}

/** YAML cuts a list at every comma; pieces in round brackets are put together again. */
function pieces(cut: string[]): string[] {
  const whole: string[] = []
  let depth = 0
  let piece = ''
  for (const character of cut.join(', ')) {
    depth += character === '(' ? 1 : character === ')' ? -1 : 0
    if (character === ',' && depth === 0) {
      whole.push(piece.trim())
      piece = ''
    } else piece += character
  }
  whole.push(piece.trim())
  return whole.filter(Boolean)
}

/** Whether the service sets a field itself, so that no caller can. */
function isWritable(object: DesignObject, field: DesignField): boolean {
  return !field.readOnly && field.name !== object.numbered
}

/** The paths of a record's own fields and line items that a column can have. */
export function ownPaths(object: DesignObject, column: Column): string[] {
  const writes = column === 'create' || column === 'update'
  const own = object.fields.filter((field) => !writes || isWritable(object, field)).map((field) => field.name)
  if (column === 'filter' || column === 'sort') return own
  return [...own, ...object.parts.flatMap((part) => partPaths(part, writes))]
}

function partPaths(part: DesignObject['parts'][number], writes: boolean): string[] {
  return part.fields
    .filter((field) => !writes || !field.readOnly)
    .map((field) => `${part.name}.${field.name}`)
}

/** The paths that a list ticks: `all`, `charges` and `charges(tariff, quantity)` spelt out. */
export function ticked(list: string[], object: DesignObject, column: Column): Set<string> {
  const paths = new Set<string>()
  for (const piece of list) {
    const part = /^(\w+)\((.*)\)$/s.exec(piece)
    const whole = object.parts.find((one) => one.name === (part?.[1] ?? piece))
    const writes = column === 'create' || column === 'update'
    if (piece === 'all') ownPaths(object, column).forEach((path) => paths.add(path))
    else if (whole && (!part || part[2].trim() === 'all'))
      partPaths(whole, writes).forEach((path) => paths.add(path))
    else if (part) part[2].split(',').forEach((name) => paths.add(`${part[1]}.${name.trim()}`))
    else paths.add(piece)
  }
  return paths
}

/** The shortest list that ticks these paths; what is read whole goes on being whole when fields are added. */
export function listOf(paths: Set<string>, object: DesignObject, column: Column): string[] {
  const own = ownPaths(object, column)
  const isPart = (path: string) => object.parts.some((part) => path.startsWith(part.name + '.'))
  const behind = [...paths].filter((path) => path.includes('.') && !isPart(path))
  if (column === 'read' && own.length > 0 && own.every((path) => paths.has(path))) return ['all', ...behind]
  const list = object.fields.map((field) => field.name).filter((name) => paths.has(name))
  const parts = object.parts.flatMap((part) => {
    const names = [...paths]
      .filter((path) => path.startsWith(part.name + '.'))
      .map((path) => path.slice(part.name.length + 1))
    return names.length ? [`${part.name}(${names.join(', ')})`] : []
  })
  return [...list, ...behind, ...parts]
}

/** Ticks paths in a column, or takes their ticks away. The column's operation comes and goes with its first tick. */
export function tick(
  text: string,
  name: string,
  object: DesignObject,
  column: Column,
  paths: string[],
  on: boolean,
): string {
  const now = readService(text)?.resources.find((one) => one.name === name)
  if (!now) return text
  const set = ticked(now.lists[column] ?? [], object, column)
  for (const path of paths) {
    if (on) set.add(path)
    else set.delete(path)
  }
  return setList(text, name, column, listOf(set, object, column))
}

/** Sets a column's list; an empty one takes the operation away, and with a query all that belongs to it. */
export function setList(text: string, name: string, column: Column, list: string[]): string {
  const document = read(text)
  const [operation, key] = placeOf(column)
  const place = ['resources', name, operation]
  if (list.length === 0 && key === 'fields') document.deleteIn(place)
  else if (list.length === 0) document.deleteIn([...place, key])
  else {
    if (!isMap(document.getIn(place))) put(document, place, flow(document, {}))
    // Cut at every comma, as people write such lists, so that nothing has to stand in quotes.
    const node = document.createNode(list.join(', ').split(', '), { flow: true })
    put(document, [...place, key], node)
  }
  return write(document)
}

/** Sets or, with nothing, takes away one thing said of a resource. */
export function setOnResource(text: string, name: string, key: string, value: unknown): string {
  const document = read(text)
  const path = ['resources', name, key]
  const empty = value === undefined || value === '' || value === false || isEmptyList(value)
  if (empty) document.deleteIn(path)
  else put(document, path, Array.isArray(value) ? document.createNode(value, { flow: true }) : value)
  return write(document)
}

/** Gives new records of a resource a value; undefined takes it away. */
export function setPreset(text: string, name: string, field: string, value: string | undefined): string {
  const document = read(text)
  const place = ['resources', name, 'preset']
  if (value === undefined) {
    document.deleteIn([...place, field])
    const left = document.getIn(place)
    if (isMap(left) && left.items.length === 0) document.deleteIn(place)
  } else {
    if (!isMap(document.getIn(place))) put(document, place, flow(document, {}))
    put(document, [...place, field], value)
  }
  return write(document)
}

const isEmptyList = (value: unknown) => Array.isArray(value) && value.length === 0

/** Sets or, with nothing, takes away one thing said of the service. */
export function setOnService(text: string, key: string, value: unknown): string {
  const document = read(text)
  if (value === undefined || value === '' || isEmptyList(value)) document.delete(key)
  else document.set(key, Array.isArray(value) ? document.createNode(value, { flow: true }) : value)
  return write(document)
}

/** What a caller is offered to begin with. */
export interface Offered {
  create: boolean
  read: boolean
  update: boolean
  query: boolean
}

const FEW = 6

/** Lists that make sense: read shows everything, create takes what is not worked out, a query what tells records apart. */
export function usualLists(object: DesignObject, offered: Offered): Partial<Record<Column, string[]>> {
  const writable = new Set(ownPaths(object, 'create'))
  const changeable = new Set([...writable].filter((path) => !object.key.includes(path)))
  const telling = object.fields.filter((field) => isTelling(object, field)).slice(0, FEW)
  const stored = telling.filter((field) => !field.onRead).map((field) => field.name)
  const lists: Partial<Record<Column, string[]>> = {}
  if (offered.create) lists.create = listOf(writable, object, 'create')
  if (offered.read) lists.read = ['all']
  if (offered.update) lists.update = listOf(changeable, object, 'update')
  if (offered.query) {
    lists.query = telling.map((field) => field.name)
    lists.filter = stored
    lists.sort = stored.filter((name) => {
      const type = object.fields.find((field) => field.name === name)!.type
      return object.key.includes(name) || !['choice', 'reference', 'boolean'].includes(type)
    })
  }
  return Object.fromEntries(Object.entries(lists).filter(([, list]) => list.length))
}

/** The key, the title, the state, and what has few values or an order. */
function isTelling(object: DesignObject, field: DesignField): boolean {
  return (
    object.key.includes(field.name) ||
    field.name === object.title ||
    field.name === object.lifecycle?.field ||
    ['choice', 'date', 'reference'].includes(field.type)
  )
}

/** Adds a resource that shows an object, at the end. */
export function addResource(text: string, name: string, object: DesignObject, offered: Offered): string {
  const document = read(text)
  put(document, ['resources', name, 'object'], object.name)
  let now = write(document)
  const lists = usualLists(object, offered)
  for (const column of COLUMNS) {
    const list = lists[column]
    if (list) now = setList(now, name, column, list)
  }
  return now
}

export function removeResource(text: string, name: string): string {
  const document = read(text)
  document.deleteIn(['resources', name])
  return write(document)
}

/** The text of a file for a new service, without resources yet. */
export function newServiceText(name: string, protocols: string[]): string {
  return `service: ${name}\nversion: 1\nprotocols: [${protocols.join(', ')}]\nresources: {}\n`
}

/** The same service as its next version, to be changed while this one goes on. */
export function nextVersionText(text: string, version: number): string {
  return setOnService(text, 'version', version)
}

/** CraftInspection as a name in addresses: craft-inspections. */
export function resourceName(plural: string): string {
  return plural
    .normalize('NFD')
    .replace(/\p{M}/gu, '')
    .replace(/ß/g, 'ss')
    .replace(/[^A-Za-z0-9]+/g, '-')
    .replace(/^-+|-+$/g, '')
    .toLowerCase()
}
