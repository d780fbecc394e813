import type { FieldView, ObjectView } from '@/api/client'
import type { Operand, Relation } from '@/api/conditions'

/** What a condition is about, and what it may name. */
export interface Scope {
  /** All objects, to follow references. */
  objects: ObjectView[]
  object?: ObjectView
  /** The line items it is about, by name. */
  part?: string
  /** The object whose records are looked at, when `this` is the record that looks. */
  target?: ObjectView
  /** Items of lists by the names they have in the condition. */
  items?: { name: string; fields: FieldView[]; label: string }[]
  /** Whether the record as it was before can be named, with `old`. */
  changes?: boolean
  /** Fields of no record, such as those of an event. */
  plain?: FieldView[]
}

/** Something that can stand on the left of a comparison. */
export interface Choice {
  value: string
  label: string
  /** The label with what it is reached through, for when it stands alone. */
  full: string
  group: string
  operand: Operand
  /** What its values are; absent for a count. */
  field?: FieldView
}

/** A list whose items a condition can be about. */
export interface ListChoice {
  path: string
  label: string
  fields: FieldView[]
}

const DEEPEST = 2
const NUMBERS = ['integer', 'decimal', 'amount', 'percent']

export const valueOf = (operand: Operand | undefined) =>
  !operand
    ? undefined
    : operand.kind === 'TOTAL'
      ? `${operand.function} ${operand.text}`
      : operand.kind === 'FIELD'
        ? operand.text
        : undefined

/** Every field that can be compared, the nearest first. */
export function choicesIn(scope: Scope): Choice[] {
  const found: Choice[] = []
  const add = (fields: FieldView[], prefix: string, group: string, depth: number, via = '') => {
    for (const field of fields) {
      // A file is no value to compare; formulas may ask for its name, type and size.
      if (field.type === 'file') continue
      const path = prefix + field.name
      found.push({
        value: path,
        label: field.label,
        full: via + field.label,
        group,
        operand: { kind: 'FIELD', text: path },
        field,
      })
    }
    if (depth >= DEEPEST) return
    for (const field of fields) {
      const to = field.to && scope.objects.find((one) => one.name === field.to)
      if (to)
        add(
          to.fields,
          `${prefix}${field.name}.`,
          `${group} › ${field.label}`,
          depth + 1,
          `${via}${field.label} › `,
        )
    }
  }
  for (const items of scope.items ?? []) add(items.fields, `${items.name}.`, items.label, 1)
  if (scope.plain) add(scope.plain, '', 'Event', 0)
  const part = scope.object?.parts.find((one) => one.name === scope.part)
  if (part) add(part.fields, '', part.label, 0)
  if (scope.target) add(scope.target.fields, '', scope.target.label, 0)
  if (scope.object) {
    const prefix = scope.target ? 'this.' : part ? 'header.' : ''
    add(scope.object.fields, prefix, scope.object.label, part || scope.target ? 1 : 0)
    if (!part && !scope.target) totals(scope, found)
    if (scope.changes && !part)
      add(scope.object.fields, 'old.', `${scope.object.label} as it was`, DEEPEST, 'Before: ')
  }
  return found
}

function totals(scope: Scope, into: Choice[]) {
  for (const list of listsIn(scope)) {
    const group = list.label
    into.push({
      value: `COUNT ${list.path}`,
      label: `Count of ${list.label.toLowerCase()}`,
      full: `Count of ${list.label.toLowerCase()}`,
      group,
      operand: { kind: 'TOTAL', function: 'COUNT', text: list.path },
    })
    for (const field of list.fields.filter((one) => NUMBERS.includes(one.type))) {
      for (const [total, words] of [
        ['SUM', 'Sum'],
        ['MIN', 'Least'],
        ['MAX', 'Greatest'],
      ] as const) {
        into.push({
          value: `${total} ${list.path}.${field.name}`,
          label: `${words} of ${field.label.toLowerCase()}`,
          full: `${words} of ${field.label.toLowerCase()} of ${list.label.toLowerCase()}`,
          group,
          operand: { kind: 'TOTAL', function: total, text: `${list.path}.${field.name}` },
          field,
        })
      }
    }
  }
}

/** The line items, and the records that refer to this one. */
export function listsIn(scope: Scope): ListChoice[] {
  if (!scope.object || scope.part || scope.target || scope.items?.length) return []
  const lines = scope.object.parts.map((part) => ({
    path: part.name,
    label: part.label,
    fields: part.fields,
  }))
  const related = scope.object.inverses
    .filter((inverse) => inverse.name && !inverse.part)
    .map((inverse) => ({
      path: inverse.name!,
      label: inverse.plural,
      fields: scope.objects.find((one) => one.name === inverse.object)?.fields ?? [],
    }))
  return [...lines, ...related]
}

/** A name for an item of a list that no field has. */
export function itemName(list: string, scope: Scope): string {
  const single = list.replace(/ies$/, 'y').replace(/s$/, '')
  const taken = [...(scope.object?.fields ?? []).map((one) => one.name), list]
  return single && !taken.includes(single) ? single : 'one'
}

type Family = 'text' | 'choice' | 'reference' | 'number' | 'time' | 'boolean' | 'unknown'

export function familyOf(choice: Choice | undefined): Family {
  if (!choice) return 'unknown'
  if (!choice.field) return 'number'
  const type = choice.field.type
  if (NUMBERS.includes(type)) return 'number'
  if (['date', 'date-time', 'time', 'duration'].includes(type)) return 'time'
  // Codes of an outside service are many, and compared as the texts they are.
  if (choice.field.lookup) return 'text'
  if (type === 'choice' || type === 'reference' || type === 'boolean') return type
  return 'text'
}

const EMPTINESS: Relation[] = ['FILLED', 'EMPTY']
const ORDER: Relation[] = ['EQUAL', 'UNEQUAL', 'LESS', 'AT_MOST', 'GREATER', 'AT_LEAST', 'BETWEEN']
const FITTING: Record<Family, Relation[]> = {
  text: ['EQUAL', 'UNEQUAL', 'CONTAINS', 'BEGINS', 'ENDS', 'MATCHES', 'ONE_OF', 'NONE_OF', ...EMPTINESS],
  choice: ['EQUAL', 'UNEQUAL', 'ONE_OF', 'NONE_OF', ...EMPTINESS],
  reference: ['EQUAL', 'UNEQUAL', 'ONE_OF', 'NONE_OF', ...EMPTINESS],
  number: [...ORDER, 'ONE_OF', ...EMPTINESS],
  time: [...ORDER, ...EMPTINESS],
  boolean: ['HOLDS', 'HOLDS_NOT', 'EQUAL', ...EMPTINESS],
  unknown: [...ORDER, 'ONE_OF', 'NONE_OF', 'CONTAINS', 'BEGINS', 'ENDS', 'MATCHES', ...EMPTINESS],
}

const WORDS: Record<Relation, string> = {
  EQUAL: 'is',
  UNEQUAL: 'is not',
  LESS: 'is less than',
  AT_MOST: 'is at most',
  GREATER: 'is more than',
  AT_LEAST: 'is at least',
  BETWEEN: 'is between',
  ONE_OF: 'is one of',
  NONE_OF: 'is none of',
  EMPTY: 'is empty',
  FILLED: 'is filled in',
  CONTAINS: 'contains',
  BEGINS: 'begins with',
  ENDS: 'ends with',
  MATCHES: 'has the form',
  HOLDS: 'is true',
  HOLDS_NOT: 'is not true',
}
const IN_TIME: Partial<Record<Relation, string>> = {
  LESS: 'is before',
  AT_MOST: 'is on or before',
  GREATER: 'is after',
  AT_LEAST: 'is on or after',
}

/** The relations that fit, in words; one that is there already stays, whether it fits or not. */
export function relationsFor(choice: Choice | undefined, now: Relation) {
  const family = familyOf(choice)
  const fitting = FITTING[family].includes(now) ? FITTING[family] : [now, ...FITTING[family]]
  return fitting.map((value) => ({
    value,
    label: (family === 'time' && IN_TIME[value]) || WORDS[value],
  }))
}

/** The relation to begin with for a field. */
export const firstRelation = (choice: Choice | undefined): Relation =>
  choice?.field?.type === 'boolean' ? 'HOLDS' : 'EQUAL'

/** An empty value to be filled in, of the kind a field has. */
export function emptyValue(choice: Choice | undefined): Operand {
  switch (familyOf(choice)) {
    case 'number':
      return { kind: 'VALUE', type: 'NUMBER', text: '' }
    case 'time':
      return { kind: 'VALUE', type: 'TEMPORAL', text: '' }
    case 'boolean':
      return { kind: 'VALUE', type: 'BOOLEAN', text: 'true' }
    default:
      return { kind: 'VALUE', type: 'TEXT', text: '' }
  }
}

/** A percent is entered as 19 and is 0.19 in a condition; digits are moved, not worked out. */
export function shifted(text: string, places: number): string {
  const match = /^(-?)(\d*)(?:\.(\d*))?$/.exec(text.trim())
  if (!match || !(match[2] + (match[3] ?? ''))) return text
  const [, sign, whole, fraction = ''] = match
  const digits = (whole || '0') + fraction
  const point = (whole || '0').length + places
  const padded = digits.padStart(Math.max(digits.length, digits.length - point + 1), '0').padEnd(point, '0')
  const at = point <= 0 ? 1 : point
  const lead = padded.slice(0, at).replace(/^0+(?=\d)/, '')
  const rest = padded.slice(at).replace(/0+$/, '')
  return `${sign}${lead}${rest ? `.${rest}` : ''}`
}
