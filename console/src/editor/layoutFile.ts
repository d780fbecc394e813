import { isMap, isScalar, isSeq, type Document } from 'yaml'
import { nameOf, optional, put, read, write } from './yamlFile'

/** Fields of a form that stand together. */
export interface LayoutSection {
  heading?: string
  fields: string[]
  /** The field behind which it comes; without, it comes last. */
  after?: string
}

export interface SideEntry {
  /** `orders`, or `Order.customer`. */
  records: string
  fields: string[]
}

/** What a file says of the form and the list. */
export interface LayoutFile {
  sections: LayoutSection[]
  wide: string[]
  leaveOut: string[]
  /** Undefined when all related records stand at the side. */
  side?: SideEntry[]
  details: Record<string, string[]>
  columns: string[]
  /** The column behind which those of an extension come. */
  after?: string
  sort?: string
}

/** What is said in a file, or undefined while it cannot be read as YAML. */
export function readLayout(text: string): LayoutFile | undefined {
  const document = read(text)
  if (document.errors.length) return undefined
  const sections = document.getIn(['form', 'sections'])
  const side = document.getIn(['form', 'side'])
  const details = document.getIn(['form', 'details'])
  return {
    sections: isSeq(sections)
      ? sections.items.filter(isMap).map((one) => ({
          heading: optional(one.get('heading')),
          fields: names(one.get('fields')),
          after: optional(one.get('after')),
        }))
      : [],
    wide: names(document.getIn(['form', 'wide'])),
    leaveOut: names(document.getIn(['form', 'leaveOut'])),
    side: isSeq(side)
      ? side.items.filter(isMap).map((one) => ({
          records: String(one.get('records') ?? ''),
          fields: names(one.get('fields')),
        }))
      : undefined,
    details: isMap(details)
      ? Object.fromEntries(details.items.map((pair) => [nameOf(pair), names(pair.value)]))
      : {},
    columns: names(document.getIn(['list', 'columns'])),
    after: optional(document.getIn(['list', 'after'])),
    sort: optional(document.getIn(['list', 'sort'])),
  }
}

function names(value: unknown): string[] {
  const texts = isSeq(value)
    ? value.items.map((one) => (isScalar(one) ? String(one.value) : ''))
    : value === undefined || value === null
      ? []
      : [String(isScalar(value) ? value.value : value)]
  return texts
    .flatMap((one) => one.split(','))
    .map((one) => one.trim())
    .filter(Boolean)
}

/** The text with another layout; what is not said of form and list stays as it is. */
export function writeLayout(text: string, layout: LayoutFile): string {
  const document = read(text)
  const kept = layout.sections.filter((one) => one.fields.length || one.heading)
  set(document, ['form', 'sections'], kept.length ? sectionNodes(document, kept) : undefined)
  set(document, ['form', 'wide'], list(document, layout.wide))
  set(document, ['form', 'leaveOut'], list(document, layout.leaveOut))
  set(document, ['form', 'side'], layout.side ? sideNodes(document, layout.side) : undefined)
  const details = Object.entries(layout.details).filter(([, fields]) => fields.length)
  set(
    document,
    ['form', 'details'],
    details.length ? document.createNode(Object.fromEntries(details)) : undefined,
    true,
  )
  set(document, ['list', 'columns'], list(document, layout.columns))
  set(document, ['list', 'after'], layout.columns.length ? layout.after : undefined)
  set(document, ['list', 'sort'], layout.sort)
  for (const key of ['form', 'list']) {
    const map = document.get(key)
    if (isMap(map) && !map.items.length) document.delete(key)
  }
  return write(document)
}

function set(document: Document, path: string[], node: unknown, flat = false) {
  if (node === undefined) {
    if (isMap(document.get(path[0]))) document.deleteIn(path)
    return
  }
  if (flat && isMap(node)) node.items.forEach((pair) => isSeq(pair.value) && (pair.value.flow = true))
  put(document, path, node)
}

const list = (document: Document, fields: string[]) =>
  fields.length ? document.createNode(fields, { flow: true }) : undefined

function sectionNodes(document: Document, sections: LayoutSection[]) {
  const node = document.createNode(
    sections.map((one) => ({
      ...(one.heading ? { heading: one.heading } : {}),
      ...(one.after ? { after: one.after } : {}),
      fields: one.fields,
    })),
  )
  flatten(node)
  return node
}

function sideNodes(document: Document, side: SideEntry[]) {
  const node = document.createNode(
    side.map((one) => ({ records: one.records, ...(one.fields.length ? { fields: one.fields } : {}) })),
  )
  if (!side.length) node.flow = true
  flatten(node)
  return node
}

/** Field names of an entry stand in one line. */
function flatten(node: unknown) {
  if (!isSeq(node)) return
  for (const item of node.items) {
    if (!isMap(item)) continue
    const fields = item.get('fields', true) as unknown
    if (isSeq(fields)) fields.flow = true
  }
}

/** Where a field is: in a section by its place, among those in none, or left out. */
export type Where = number | 'rest' | 'out'

export const whereIs = (layout: LayoutFile, field: string): Where =>
  layout.leaveOut.includes(field)
    ? 'out'
    : ((at) => (at < 0 ? 'rest' : at))(layout.sections.findIndex((one) => one.fields.includes(field)))

/** The layout with a field somewhere else. */
export function moveTo(layout: LayoutFile, field: string, to: Where, place?: number): LayoutFile {
  const sections = layout.sections.map((one) => ({
    ...one,
    fields: one.fields.filter((name) => name !== field),
  }))
  if (typeof to === 'number' && sections[to]) {
    const fields = [...sections[to].fields]
    fields.splice(place ?? fields.length, 0, field)
    sections[to] = { ...sections[to], fields }
  }
  const leaveOut = layout.leaveOut.filter((name) => name !== field)
  return { ...layout, sections, leaveOut: to === 'out' ? [...leaveOut, field] : leaveOut }
}

/** One place up (-1) or down (1), into the section before or after when it is at the end of its own. */
export function shiftField(layout: LayoutFile, field: string, by: -1 | 1): LayoutFile {
  const at = whereIs(layout, field)
  if (at === 'out') return layout
  if (at === 'rest')
    return by < 0 && layout.sections.length ? moveTo(layout, field, layout.sections.length - 1) : layout
  const place = layout.sections[at].fields.indexOf(field)
  const next = place + by
  if (next >= 0 && next < layout.sections[at].fields.length) return moveTo(layout, field, at, next)
  const other = at + by
  if (other < 0) return layout
  if (other >= layout.sections.length) return moveTo(layout, field, 'rest')
  return moveTo(layout, field, other, by < 0 ? undefined : 0)
}
