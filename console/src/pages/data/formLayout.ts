import type { FieldView, ObjectView } from '@/api/client'
import { addressOf, type RecordView } from '@/api/records'

/** Fields that stand together in a form. */
export interface FormSection {
  heading?: string
  fields: FieldView[]
}

/** The sections of a form without the fields that are hidden just now. */
export function sectionsOf(
  object: ObjectView | undefined,
  isHidden: (field: FieldView) => boolean,
): FormSection[] {
  return (object?.layout.sections ?? []).map((section) => ({
    heading: section.heading,
    fields: section.fields
      .map((name) => object!.fields.find((field) => field.name === name))
      .filter((field): field is FieldView => !!field && !isHidden(field)),
  }))
}

/** Whether a field takes a whole line. */
export function isWide(object: ObjectView, field: FieldView): boolean {
  return object.layout.wide.includes(field.name) || field.multiline || field.languages.length > 0
}

/** Records beside a form that refer to the one in it. */
export interface RelatedList {
  target: ObjectView
  field: string
  label: string
  filter: string
  columns: FieldView[]
}

const USUAL_COLUMNS = 2

/** The lists beside a form: those its layout names, or one for each reference to it. */
export function sideLists(
  object: ObjectView | undefined,
  objects: ObjectView[],
  record: RecordView | undefined,
): RelatedList[] {
  if (!object || !record) return []
  const wanted =
    object.layout.side ??
    object.inverses
      .filter((inverse) => !inverse.part)
      .map((inverse) => ({ object: inverse.object, field: inverse.field, columns: [] as string[] }))
  return wanted.flatMap((one) => {
    const target = objects.find((other) => other.name === one.object)
    const by = target?.fields.find((field) => field.name === one.field)
    if (!target || !by) return []
    const alone = wanted.filter((other) => other.object === one.object).length === 1
    return {
      target,
      field: one.field,
      label: alone ? target.plural : `${target.plural} by ${by.label.toLowerCase()}`,
      filter: `${one.field} = ${JSON.stringify(addressOf(object.key, record))}`,
      columns: one.columns.length ? named(target, one.columns) : usualColumns(target, one.field),
    }
  })
}

const named = (object: ObjectView, names: string[]) =>
  names
    .map((name) => object.fields.find((field) => field.name === name))
    .filter((field): field is FieldView => !!field)

/** What names a record and what state it is in, else its first fields. */
function usualColumns(object: ObjectView, except: string): FieldView[] {
  const names = [...object.key, object.title, object.lifecycle?.field, ...object.layout.columns]
  const first = named(object, [...new Set(names.filter((name): name is string => !!name))])
  const rest = object.fields.filter((field) => !field.multiline && !first.includes(field))
  return [...first, ...rest].filter((field) => field.name !== except).slice(0, USUAL_COLUMNS)
}
