import type { ObjectView } from '@/api/client'
import type { Action } from '@/editor/requirementFile'

/** What can be named in an example: the objects, and records with the names they were given. */
export interface Known {
  objects: ObjectView[]
  /** The object of each record by `as` or by `Object/key`. */
  records: Map<string, string>
}

/** What is known after some actions. */
export function knownAfter(objects: ObjectView[], actions: Action[]): Known {
  const records = new Map<string, string>()
  for (const action of actions) {
    if (action.kind !== 'create') continue
    if (action.as) records.set(action.as, action.target)
    const key = objects.find((one) => one.name === action.target)?.key ?? []
    const values = key.map((name) => action.values?.[name])
    if (key.length && values.every((one) => one !== undefined && one !== null && one !== ''))
      records.set(`${action.target}/${values.join(',')}`, action.target)
  }
  return { objects, records }
}

/** The object that an action is about, as far as it can be told. */
export function objectOf(action: Action, known: Known): ObjectView | undefined {
  const named = action.kind === 'create' || action.kind === 'change' || action.kind === 'retire'
  const text = named ? action.target : (action.of ?? action.target)
  const name = known.records.get(text) ?? text.split(/[/.]/)[0]
  return known.objects.find((one) => one.name === name)
}
