import type { FieldView, ObjectView } from '@/api/client'
import type { Plain, RecordView, Values } from '@/api/records'

/** Values of a record that is not stored yet: the defaults that can be shown beforehand. */
export function newValues(object: ObjectView): Values {
  const values: Values = {}
  for (const field of object.fields) values[field.name] = standard(field)
  for (const part of object.parts) values[part.name] = []
  return values
}

/** A new line item. */
export function newItem(fields: FieldView[]): Values {
  return Object.fromEntries(fields.map((field) => [field.name, standard(field)]))
}

function standard(field: FieldView): Plain {
  const text = field.standard
  if (text === undefined || text === null) return field.type === 'boolean' ? false : null
  if (text === 'today()') return new Date().toISOString().slice(0, 10)
  if (text === 'now()') return new Date().toISOString()
  if (field.type === 'boolean') return text === 'true'
  if (['integer', 'decimal', 'percent'].includes(field.type)) return Number(text)
  if (field.type === 'amount' && field.currency !== 'record') return Number(text)
  return text
}

/** What to send: of a new record all that is filled, of a stored one what differs from what was read. */
export function changes(object: ObjectView, before: RecordView | undefined, now: Values): Values {
  const sent: Values = {}
  for (const name of [...object.fields, ...object.parts].map((one) => one.name)) {
    const field = object.fields.find((one) => one.name === name)
    if (field?.readOnly) continue
    const then = before?.values[name] ?? null
    const value = now[name] ?? null
    if (before ? !same(then, value) : value !== null) sent[name] = value
  }
  return sent
}

export function same(a: Plain, b: Plain): boolean {
  return JSON.stringify(a) === JSON.stringify(b)
}
