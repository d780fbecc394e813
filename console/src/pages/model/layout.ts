import type { ObjectView, RouteView } from '@/api/client'

/** What a diagram is made of, before anything has its place. */
export interface Link {
  id: string
  from: string
  to: string
  label: string
  required: boolean
  part?: string
}

/** The references between objects, those of line items too. */
export function links(objects: ObjectView[]): Link[] {
  const names = new Set(objects.map((object) => object.name))
  const found: Link[] = []
  for (const object of objects) {
    for (const field of object.fields) {
      if (field.to && names.has(field.to)) {
        const id = `${object.name}.${field.name}`
        found.push({ id, from: object.name, to: field.to, label: field.name, required: field.required })
      }
    }
    for (const part of object.parts) {
      for (const field of part.fields) {
        if (field.to && names.has(field.to)) {
          const id = `${object.name}.${part.name}.${field.name}`
          const label = `${part.name}.${field.name}`
          found.push({
            id,
            from: object.name,
            to: field.to,
            label,
            required: field.required,
            part: part.name,
          })
        }
      }
    }
  }
  return found
}

/** The steps of a route between objects, with the fields that go their way; those within one object have no arrow. */
export function legs(route: RouteView): { id: string; from: string; to: string; label: string }[] {
  return route.steps
    .filter((step) => step.from !== step.to)
    .map((step, at) => {
      const end = step.part ? `${step.to}.${step.part}` : step.to
      const fields = route.travellers.filter((one) => one.reaches.includes(end)).map((one) => one.field)
      return {
        id: `route ${at}`,
        from: step.from,
        to: step.to,
        label: fields.length > 2 ? `${fields.length} fields` : fields.join(', '),
      }
    })
}

export const WIDTH = 190
const HEAD = 34
const LINE = 19
const MOST_LINES = 7

/** The lines of an object's box: its key first, then the other fields that are no references, then its parts. */
export function lines(object: ObjectView): { text: string; kind: 'key' | 'field' | 'part' | 'more' }[] {
  const key = object.key.map((text) => ({ text, kind: 'key' as const }))
  const fields = object.fields
    .filter((field) => !field.to && !object.key.includes(field.name))
    .map((field) => ({ text: field.name, kind: 'field' as const }))
  const parts = object.parts.map((part) => ({ text: `${part.name} (line items)`, kind: 'part' as const }))
  const room = MOST_LINES - key.length - parts.length
  const shown = fields.length > room ? fields.slice(0, room - 1) : fields
  const more = fields.length - shown.length
  return [
    ...key,
    ...shown,
    ...(more > 0 ? [{ text: `and ${more} more`, kind: 'more' as const }] : []),
    ...parts,
  ]
}

export function height(object: ObjectView): number {
  return HEAD + lines(object).length * LINE + 10
}
