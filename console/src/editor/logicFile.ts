import { isMap, isScalar, isSeq, type Document } from 'yaml'
import { readSpoken } from './labels'
import { append, put, read, write } from './yamlFile'

type Path = (string | number)[]

/** What is worked out about one field. */
export interface FieldLogic {
  name: string
  type: string
  part?: string
  formula?: string
  requiredWhen?: string
  readOnlyWhen?: string
  hiddenWhen?: string
  offer?: string
}
export type LogicKey = 'formula' | 'requiredWhen' | 'readOnlyWhen' | 'hiddenWhen' | 'offer'
export const LOGIC_KEYS: LogicKey[] = ['formula', 'requiredWhen', 'readOnlyWhen', 'hiddenWhen', 'offer']

export interface CheckRow {
  name: string
  that: string
  say: string
  at: string
  warning: boolean
  before: string
  on: string
}

export interface RuleRow {
  name: string
  label: string
  on: string
  when: string
  then: string
}

export interface LifecycleRow {
  initial: string
  states: string[]
  transitions: { name: string; from: string[]; to: string; label: string }[]
}

/** The fields of the record and of its parts, with their logic. */
export function readLogic(text: string): FieldLogic[] {
  const document = read(text)
  const rows = fieldsAt(document, ['fields'])
  const parts = document.get('parts')
  if (isMap(parts)) {
    for (const pair of parts.items) {
      const part = plain(pair.key)
      rows.push(...fieldsAt(document, ['parts', part, 'fields']).map((row) => ({ ...row, part })))
    }
  }
  return rows
}

function fieldsAt(document: Document, path: Path): FieldLogic[] {
  const fields = document.getIn(path)
  if (!isMap(fields)) return []
  return fields.items.map((pair) => {
    const row: FieldLogic = { name: plain(pair.key), type: 'text' }
    if (isMap(pair.value)) {
      row.type = plain(pair.value.get('type')) || 'text'
      for (const key of LOGIC_KEYS) {
        const value = pair.value.get(key)
        // A condition may stand beside what people are told of it.
        if (value !== undefined) row[key] = plain(isMap(value) ? value.get('that') : value)
      }
    }
    return row
  })
}

export function setFieldLogic(text: string, row: FieldLogic, key: LogicKey, value: string): string {
  const path = row.part ? ['parts', row.part, 'fields', row.name] : ['fields', row.name]
  const there = read(text).getIn([...path, key])
  return setAt(text, isMap(there) && value ? [...path, key, 'that'] : [...path, key], value)
}

export function readChecks(text: string): CheckRow[] {
  const checks = read(text).get('checks')
  if (!isSeq(checks)) return []
  return checks.items.filter(isMap).map((check, at) => ({
    name: plain(check.get('name')) || `check ${at + 1}`,
    that: plain(check.get('that')),
    say: plain(check.get('say')),
    at: plain(check.get('at')),
    warning: check.get('severity') === 'warning',
    before: list(check.get('before')).join(', '),
    on: list(check.get('on')).join(' or '),
  }))
}

/** Adds a check, perhaps one that is looked at only before a transition. */
export function addCheck(text: string, before?: string): string {
  const document = read(text)
  const taken = readChecks(text).map((check) => check.name)
  let count = taken.length + 1
  while (taken.includes(`check${count}`)) count++
  append(
    document,
    ['checks'],
    document.createNode({
      name: `check${count}`,
      ...(before ? { before: [before] } : {}),
      that: 'true',
      say: 'Say what must be so.',
    }),
  )
  return write(document)
}

export function readRules(text: string): RuleRow[] {
  const rules = read(text).get('rules')
  if (!isMap(rules)) return []
  return rules.items.map((pair) => {
    const rule = isMap(pair.value) ? pair.value : undefined
    return {
      name: plain(pair.key),
      label: plain(rule?.get('label')),
      on: list(rule?.get('on')).join(' or '),
      when: plain(rule?.get('when')),
      then: plain(rule?.get('then')).trimEnd(),
    }
  })
}

export function addRule(text: string): { text: string; name: string } {
  const document = read(text)
  const taken = readRules(text).map((rule) => rule.name)
  let name = 'newRule'
  for (let count = 2; taken.includes(name); count++) name = `newRule${count}`
  put(document, ['rules', name], document.createNode({ on: 'change', then: 'note "It changed."' }))
  return { text: write(document), name }
}

export function readLifecycle(text: string): LifecycleRow | undefined {
  const lifecycle = read(text).get('lifecycle')
  if (!isMap(lifecycle)) return undefined
  const states = lifecycle.get('states')
  const transitions = lifecycle.get('transitions')
  return {
    initial: plain(lifecycle.get('initial')),
    states: isMap(states) ? states.items.map((pair) => plain(pair.key)) : list(states),
    transitions: isMap(transitions)
      ? transitions.items.map((pair) => {
          const one = isMap(pair.value) ? pair.value : undefined
          return {
            name: plain(pair.key),
            from: list(one?.get('from')),
            to: plain(one?.get('to')),
            label: Object.values(readSpoken(one?.get('label'), 'en'))[0] ?? '',
          }
        })
      : [],
  }
}

/** A lifecycle to begin with. */
export function addLifecycle(text: string): string {
  const document = read(text)
  document.set(
    'lifecycle',
    document.createNode({
      initial: 'Open',
      states: ['Open', 'Closed'],
      transitions: { close: { from: 'Open', to: 'Closed' } },
    }),
  )
  return write(document)
}

/** Renames an entry of a map and keeps its place. */
export function renameAt(text: string, path: Path, from: string, to: string): string {
  const document = read(text)
  const map = document.getIn(path)
  if (!isMap(map) || !to || map.has(to)) return text
  const pair = map.items.find((one) => plain(one.key) === from)
  if (!pair) return text
  if (isScalar(pair.key)) pair.key.value = to
  return write(document)
}

/** Sets, or with empty text takes away, what is at a path. Steps of several lines become a block. */
export function setAt(text: string, path: Path, value: unknown): string {
  const document = read(text)
  if (value === '' || value === undefined) document.deleteIn(path)
  else {
    const isBlock = typeof value === 'string' && value.trimEnd().includes('\n')
    const node = document.createNode(isBlock ? `${value.trimEnd()}\n` : value)
    if (isBlock && isScalar(node)) node.type = 'BLOCK_LITERAL'
    put(document, path, node)
  }
  return write(document)
}

export const removeAt = (text: string, path: Path) => setAt(text, path, undefined)

function list(value: unknown): string[] {
  if (isSeq(value)) return value.items.map(plain)
  const one = plain(value)
  return one ? one.split(/\s*,\s*/) : []
}
function plain(value: unknown): string {
  const inner = isScalar(value) ? value.value : value
  return inner === undefined || inner === null ? '' : String(inner)
}
