import type { FieldView } from '@/api/client'
import type { Chart } from '@/api/figures'

/** Whether the values of a field can be added up; those in several currencies cannot. */
export const addable = (field: FieldView) =>
  !field.onRead &&
  ['integer', 'decimal', 'amount'].includes(field.type) &&
  !(field.type === 'amount' && field.currency === 'record')

/** The fields among the columns of a list whose sums stand below it. */
export const summedFields = (fields: FieldView[], columns: string[]) =>
  fields.filter((field) => addable(field) && columns.includes(field.name))

export const inTime = (field: FieldView) => field.type === 'date' || field.type === 'date-time'

/** Whether records can be grouped by a field. */
export const canGroup = (field: FieldView) =>
  !field.onRead &&
  !field.multiline &&
  field.type !== 'file' &&
  !field.languages.length &&
  !(field.type === 'amount' && field.currency === 'record')

const NATURAL = ['choice', 'reference', 'boolean', 'date', 'date-time']

/** The chart to begin with: by what tells records apart best. */
export function firstChart(fields: FieldView[], state?: string): Chart | undefined {
  const groupable = fields.filter(canGroup)
  const by =
    groupable.find((one) => one.name === state) ??
    NATURAL.map((type) => groupable.find((one) => one.type === type)).find(Boolean) ??
    groupable[0]
  if (!by) return undefined
  return inTime(by) ? { kind: 'LINE', by: by.name, step: 'MONTH' } : { kind: 'BAR', by: by.name }
}
