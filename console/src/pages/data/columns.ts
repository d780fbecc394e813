import type { ObjectView } from '@/api/client'

const MOST_COLUMNS = 8

/**
 * The columns of a list: those that were chosen, else those of the object's layout, else its first fields with
 * what state a record is in beside what names it.
 */
export function columnsOf(object: ObjectView, chosen: string | undefined): string[] {
  const known = (names: string[]) => names.filter((name) => object.fields.some((one) => one.name === name))
  const wanted = known(chosen?.split(',') ?? [])
  if (wanted.length) return wanted
  const laid = known(object.layout.columns)
  if (laid.length) return laid
  const names = object.fields.filter((field) => !field.multiline).map((field) => field.name)
  const state = names.indexOf(object.lifecycle?.field ?? '')
  if (state > 0) names.splice(1, 0, ...names.splice(state, 1))
  return names.slice(0, MOST_COLUMNS)
}
