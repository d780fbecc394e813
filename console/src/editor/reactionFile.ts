import { isMap, isScalar, isSeq, type Document, type YAMLMap } from 'yaml'
import { put, read, write } from './yamlFile'

/** A parameter; one with more to it than a type is edited in the text. */
export interface ParameterRow {
  name: string
  type: string
  required: boolean
  isPlain: boolean
}

export interface FunctionRow {
  name: string
  label: string
  isOnRecord: boolean
  isExternal: boolean
  hasOwnRights: boolean
  parameters: ParameterRow[]
  /** The type in words, or undefined when it gives nothing back. */
  returns?: string
  isReturnPlain: boolean
  body: string
}

export interface HandlerRow {
  name: string
  on: string
  isWithin: boolean
  isBatch: boolean
  when: string
  then: string
}

export interface ScheduleRow {
  name: string
  every: string
  on: string
  at: string
  where: string
  skips: boolean
  then: string
}

export function readFunctions(text: string): FunctionRow[] {
  return entries(read(text), 'functions').map(([name, one]) => {
    const returns = one.get('returns')
    return {
      name,
      label: plain(one.get('label')),
      isOnRecord: plain(one.get('on')) !== 'object',
      isExternal: one.get('external') === true,
      hasOwnRights: plain(one.get('rights')) === 'own',
      parameters: parametersOf(one.get('parameters')),
      returns: returns === undefined ? undefined : typeWords(returns),
      isReturnPlain: returns === undefined || isPlainType(returns),
      body: plain(one.get('body')).trimEnd(),
    }
  })
}

function parametersOf(value: unknown): ParameterRow[] {
  if (!isMap(value)) return []
  return value.items.map((pair) => ({
    name: plain(pair.key),
    type: typeWords(pair.value),
    required: isMap(pair.value) && pair.value.get('required') === true,
    isPlain: isPlainType(pair.value),
  }))
}

/** A list or a context says more than a word and a target can. */
const isPlainType = (value: unknown) => !isMap(value) || !(value.has('list') || value.has('fields'))

/** The type, of a reference with the object it leads to. */
function typeWords(value: unknown): string {
  if (!isMap(value)) return plain(value)
  const to = plain(value.get('to'))
  const type = plain(value.get('type')) + (to ? ` to ${to}` : '')
  return value.get('list') === true ? `list of ${type}` : type
}

/** Sets the type of a parameter, and whether it is required; what else is said of it stays. */
export function setParameter(
  text: string,
  owner: string,
  name: string,
  words: string,
  required: boolean,
): string {
  const document = read(text)
  const path = ['functions', owner, 'parameters', name]
  const there = document.getIn(path)
  const node = typeNode(words, required)
  if (!isMap(there)) put(document, path, document.createNode(node))
  else {
    const now = typeof node === 'string' ? { type: node } : (node as Record<string, unknown>)
    for (const key of ['type', 'to', 'required']) {
      if (key in now) there.set(key, now[key])
      else there.delete(key)
    }
  }
  return write(document)
}

/** How a type is written: the word alone, or with what else there is to say. */
export function typeNode(words: string, required: boolean): unknown {
  const [type, to] = words.trim().split(/\s+to\s+/)
  if (!to && !required) return type
  return { type, ...(to ? { to } : {}), ...(required ? { required: true } : {}) }
}

export function readHandlers(text: string): HandlerRow[] {
  return entries(read(text), 'handlers').map(([name, one]) => ({
    name,
    on: list(one.get('on')).join(', '),
    isWithin: plain(one.get('run')) === 'with',
    isBatch: one.get('batch') === true,
    when: plain(one.get('when')),
    then: plain(one.get('then')).trimEnd(),
  }))
}

export function readSchedules(text: string): ScheduleRow[] {
  return entries(read(text), 'schedules').map(([name, one]) => ({
    name,
    every: plain(one.get('every')),
    on: plain(one.get('on')),
    at: plain(one.get('at')),
    where: plain(one.get('where')),
    skips: plain(one.get('missed')) === 'skip',
    then: plain(one.get('then')).trimEnd(),
  }))
}

const FRESH = {
  functions: { name: 'newFunction', value: { on: 'record', external: true, body: 'note "It was called."' } },
  handlers: {
    name: 'newHandler',
    value: (object: string) => ({ on: `${object}.created`, then: 'note "Heard."' }),
  },
  schedules: { name: 'newSchedule', value: { every: '0 6 * * *', then: 'note "It is time."' } },
}

/** Adds one to begin with, under a name that is free. */
export function addReaction(text: string, kind: keyof typeof FRESH, object: string): string {
  const document = read(text)
  const { name: first, value } = FRESH[kind]
  const taken = entries(document, kind).map(([name]) => name)
  let name = first
  for (let count = 2; taken.includes(name); count++) name = `${first}${count}`
  put(document, [kind, name], document.createNode(typeof value === 'function' ? value(object) : value))
  return write(document)
}

function entries(document: Document, kind: string): [string, YAMLMap][] {
  const map = document.get(kind)
  if (!isMap(map)) return []
  return map.items.flatMap((pair) =>
    isMap(pair.value) ? [[plain(pair.key), pair.value] as [string, YAMLMap]] : [],
  )
}
function list(value: unknown): string[] {
  if (isSeq(value)) return value.items.map(plain)
  const one = plain(value)
  return one ? one.split(/\s*,\s*/) : []
}
function plain(value: unknown): string {
  const inner = isScalar(value) ? value.value : value
  return inner === undefined || inner === null ? '' : String(inner)
}
