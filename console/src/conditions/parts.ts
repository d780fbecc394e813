import type { Condition, Operand, Relation } from '@/api/conditions'

/** A part that is being put together; it may lack what it needs. */
export interface Draft {
  /** Tells parts apart on the page. */
  id: number
  kind: Condition['kind']
  all: boolean
  negated: boolean
  parts: Draft[]
  of?: Operand
  relation: Relation
  values: Operand[]
  quantity: NonNullable<Condition['quantity']>
  list: string
  name: string
  text: string
}

let last = 0

function blank(kind: Draft['kind']): Draft {
  return {
    id: ++last,
    kind,
    all: true,
    negated: false,
    parts: [],
    relation: 'EQUAL',
    values: [],
    quantity: 'EVERY',
    list: '',
    name: '',
    text: '',
  }
}

export const newComparison = () => blank('COMPARISON')
export const newText = (text = '') => ({ ...blank('TEXT'), text })
export const newGroup = (all = true, parts: Draft[] = []) => ({ ...blank('GROUP'), all, parts })

/** Items of a list, with a condition to be filled in. */
export function newItems(list: string, name: string): Draft {
  return { ...blank('ITEMS'), list, name, parts: [newGroup(true, [newComparison()])] }
}

/** What was read, to be worked on. */
export function draftOf(condition: Condition): Draft {
  switch (condition.kind) {
    case 'GROUP':
      return {
        ...newGroup(condition.all ?? true, (condition.parts ?? []).map(draftOf)),
        negated: condition.negated ?? false,
      }
    case 'COMPARISON':
      return {
        ...blank('COMPARISON'),
        of: condition.of,
        relation: condition.relation ?? 'EQUAL',
        values: condition.values ?? [],
      }
    case 'ITEMS':
      return {
        ...blank('ITEMS'),
        quantity: condition.quantity ?? 'EVERY',
        list: condition.list ?? '',
        name: condition.name ?? '',
        parts: [asGroup(draftOf(condition.condition!))],
      }
    case 'TEXT':
      return newText(condition.text ?? '')
  }
}

/** The whole is a group, so that something can be added to it. */
export function asGroup(draft: Draft): Draft {
  return draft.kind === 'GROUP' && !draft.negated ? draft : newGroup(true, [draft])
}

/** The condition as it is sent; only of what is finished. */
export function conditionOf(draft: Draft): Condition {
  switch (draft.kind) {
    case 'GROUP':
      return {
        kind: 'GROUP',
        all: draft.all,
        negated: draft.negated,
        parts: draft.parts.map(conditionOf),
      }
    case 'COMPARISON':
      return { kind: 'COMPARISON', of: draft.of, relation: draft.relation, values: draft.values }
    case 'ITEMS':
      return {
        kind: 'ITEMS',
        quantity: draft.quantity,
        list: draft.list,
        name: draft.name,
        condition: conditionOf(draft.parts[0]),
      }
    case 'TEXT':
      return { kind: 'TEXT', text: draft.text }
  }
}

/** How many values a relation needs; those that take a list need at least one. */
export const NEEDED: Record<Relation, number> = {
  EQUAL: 1,
  UNEQUAL: 1,
  LESS: 1,
  AT_MOST: 1,
  GREATER: 1,
  AT_LEAST: 1,
  BETWEEN: 2,
  ONE_OF: 1,
  NONE_OF: 1,
  EMPTY: 0,
  FILLED: 0,
  CONTAINS: 1,
  BEGINS: 1,
  ENDS: 1,
  MATCHES: 1,
  HOLDS: 0,
  HOLDS_NOT: 0,
}

function hasValue(operand: Operand | undefined): boolean {
  if (!operand) return false
  if (operand.kind === 'RELATIVE') return operand.amount !== undefined && operand.unit !== undefined
  if (operand.kind === 'VALUE' && operand.type === 'TEXT') return (operand.text ?? '') !== ''
  return !!operand.text?.trim()
}

/** What is missing in a part, in words; undefined when it is finished. Inner parts speak for themselves. */
export function missingIn(draft: Draft): string | undefined {
  switch (draft.kind) {
    case 'GROUP':
      return draft.parts.length ? undefined : 'Add a condition to this group, or take the group away.'
    case 'COMPARISON':
      if (!hasValue(draft.of)) return 'Choose a field.'
      if (draft.values.length < NEEDED[draft.relation] || !draft.values.every(hasValue))
        return NEEDED[draft.relation] > 1 ? 'Give both values.' : 'Give a value.'
      return undefined
    case 'ITEMS':
      return draft.list ? undefined : 'Choose a list.'
    case 'TEXT':
      return draft.text.trim() ? undefined : 'Write the condition.'
  }
}

/** Whether nothing is missing anywhere. */
export function isFinished(draft: Draft): boolean {
  return !missingIn(draft) && draft.parts.every(isFinished)
}

/** How many parts at any depth are not finished. */
export function unfinishedIn(draft: Draft): number {
  return (missingIn(draft) ? 1 : 0) + draft.parts.reduce((sum, part) => sum + unfinishedIn(part), 0)
}
