import type { FieldView, ObjectView, PartView } from '@/api/client'
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
  // The day and the time are those of the package's zone, which the service knows: its preview shows them.
  if (text === 'today()' || text === 'now()') return null
  if (field.type === 'boolean') return text === 'true'
  if (['integer', 'decimal', 'percent'].includes(field.type)) return Number(text)
  if (field.type === 'amount' && field.currency !== 'record') return Number(text)
  return text
}

/** A value as it is sent: line items without what the service works out or fills in. */
function given(part: PartView | undefined, value: Plain): Plain {
  if (!part || !Array.isArray(value)) return value
  return value.map((item) => {
    const sent: Values = {}
    for (const [name, one] of Object.entries(item as Values)) {
      const field = part.fields.find((other) => other.name === name)
      const isNew = (item as Values).line === undefined
      if (!field?.readOnly && !(isNew && one === null)) sent[name] = one
    }
    return sent
  })
}

/** What the form shows: what was entered, and where nothing was, what the service makes of it. */
export function shown(object: ObjectView, entered: Values, touched: Set<string>, preview?: Values): Values {
  if (!preview) return entered
  const values: Values = { ...entered }
  for (const field of object.fields) {
    if (!touched.has(field.name)) values[field.name] = preview[field.name] ?? null
  }
  for (const part of object.parts) {
    const items = entered[part.name]
    const made = preview[part.name]
    if (!Array.isArray(items) || !Array.isArray(made) || items.length !== made.length) continue
    values[part.name] = items.map((item, at) => {
      const one: Values = { ...(item as Values) }
      for (const field of part.fields) {
        const mine = one[field.name]
        if (field.readOnly || mine === null || mine === undefined)
          one[field.name] = (made[at] as Values)[field.name] ?? null
      }
      return one
    })
  }
  return values
}

/** What to send: of a new record all that is filled, of a stored one what differs from what was read. */
export function changes(object: ObjectView, before: RecordView | undefined, now: Values): Values {
  const sent: Values = {}
  for (const name of [...object.fields, ...object.parts].map((one) => one.name)) {
    const field = object.fields.find((one) => one.name === name)
    if (field?.readOnly) continue
    const then = before?.values[name] ?? null
    const value = now[name] ?? null
    const part = object.parts.find((one) => one.name === name)
    if (before ? !same(given(part, then), given(part, value)) : value !== null)
      sent[name] = given(part, value)
  }
  return sent
}

export function same(a: Plain, b: Plain): boolean {
  return JSON.stringify(a) === JSON.stringify(b)
}
