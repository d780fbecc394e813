import { Document, isMap, isScalar, isSeq, Pair, Scalar, YAMLMap } from 'yaml'
import { readSpoken, type Spoken } from './labels'
import { flow, nameOf, optional, put, read, write } from './yamlFile'

/** One field as the grid shows it; what is not said is undefined. */
export interface FieldRow {
  name: string
  type: string
  label?: string
  /** Labels by language, where there are several. */
  labels: Spoken
  length?: number
  scale?: number
  /** The name of a list, codes with commas between them, or a lookup of a connection. */
  choices?: string
  to?: string
  default?: string
  describe?: string
  pattern?: string
  currency?: string
  inverse?: string
  /** Media types of a file, with commas between them. */
  accepts?: string
  largest?: string
  multiline: boolean
  localised: boolean
  required: boolean
  unique: boolean
  readOnly: boolean
  key: boolean
  /** The routes along which it travels. */
  travels: Travel[]
}

/** That a field travels along a route. */
export interface Travel {
  route: string
  /** What gets it; everything on the route when absent. */
  to?: string[]
  follows: boolean
}

export type FieldKey = Exclude<keyof FieldRow, 'name' | 'key' | 'label' | 'labels' | 'travels'>

/** Where fields stand in the file: the record's own, or those of a part. */
export type Place = ['fields'] | ['parts', string, 'fields']

/** Which details a type can have. */
export const DETAILS: Record<string, FieldKey[]> = {
  text: ['length', 'pattern', 'multiline', 'localised'],
  email: ['length'],
  phone: ['length'],
  'web-address': ['length'],
  decimal: ['scale'],
  percent: ['scale'],
  amount: ['scale', 'currency'],
  choice: ['choices'],
  reference: ['to', 'inverse'],
  file: ['accepts', 'largest'],
}

/** The object's name, or undefined when the text is no object file. */
export function objectName(text: string): string | undefined {
  const document = read(text)
  const name = document.get('object')
  // A view says of which object it is.
  return typeof name === 'string' && !document.has('view') ? name : undefined
}

/** The name of the object a file extends, or undefined when it extends none. */
export function extendedName(text: string): string | undefined {
  const name = read(text).get('extend')
  return typeof name === 'string' ? name : undefined
}

/**
 * The fields at a place, or undefined while the text cannot be read as YAML. A label that is one text is in the
 * main language.
 */
export function readFields(text: string, place: Place, main = 'en'): FieldRow[] | undefined {
  const document = read(text)
  if (document.errors.length) return undefined
  const keys = keyOf(document)
  const fields = document.getIn(place)
  if (!isMap(fields)) return []
  return fields.items.map((pair) => {
    const name = nameOf(pair)
    const at = isMap(pair.value) ? pair.value : new YAMLMap()
    const choices = at.get('choices')
    const labels = readSpoken(at.get('label'), main)
    return {
      name,
      type: String(at.get('type') ?? 'text'),
      label: labels[main],
      labels,
      length: number(at.get('length')),
      scale: number(at.get('scale')),
      choices: isSeq(choices)
        ? choices.items.map((one) => (isScalar(one) ? String(one.value) : '')).join(', ')
        : isMap(choices)
          ? choices.items.map((one) => nameOf(one)).join(', ')
          : (optional(at.get('from')) ?? optional(choices)),
      to: optional(at.get('to')),
      default: optional(at.get('default')),
      describe: optional(at.get('describe')),
      pattern: optional(at.get('pattern')),
      currency: optional(at.get('currency')),
      inverse: optional(at.get('inverse')),
      accepts: listed(at.get('accepts')),
      largest: optional(at.get('largest')),
      multiline: at.get('multiline') === true,
      localised: at.get('localised') === true,
      required: at.get('required') === true,
      unique: at.get('unique') === true,
      readOnly: at.get('readOnly') === true,
      key: place.length === 1 && keys.includes(name),
      travels: travelsOf(at.get('travels')),
    }
  })
}

function travelsOf(said: unknown): Travel[] {
  if (isSeq(said)) return said.items.flatMap(travelsOf)
  if (isScalar(said) || typeof said === 'string')
    return [{ route: String(isScalar(said) ? said.value : said), follows: false }]
  if (!isMap(said)) return []
  const to = said.get('to')
  return [
    {
      route: String(said.get('route') ?? ''),
      to: isSeq(to) ? to.items.map((one) => String(isScalar(one) ? one.value : one)) : undefined,
      follows: said.get('follows') === true,
    },
  ]
}

/** Says along which routes a field travels, as shortly as that can be said. */
export function setTravels(text: string, place: Place, name: string, travels: Travel[]): string {
  const document = read(text)
  const path = [...place, name, 'travels']
  const said = travels.map(({ route, to, follows }) =>
    to || follows ? { route, ...(to && { to }), ...(follows && { follows }) } : route,
  )
  if (!said.length) document.deleteIn(path)
  else put(document, path, document.createNode(said.length === 1 ? said[0] : said, { flow: true }))
  return write(document)
}

/** Sets or, with undefined, takes away one thing said of a field. All else in the text stays as it is. */
export function setOnField(text: string, place: Place, name: string, key: FieldKey, value: unknown): string {
  const document = read(text)
  const path = [...place, name]
  if (!isMap(document.getIn(path))) put(document, path, flow(document, {}))
  if (value === undefined || value === '' || value === false) {
    document.deleteIn([...path, key])
    if (key === 'choices') document.deleteIn([...path, 'from'])
  } else if (key === 'choices') putChoices(document, path, String(value).trim())
  else if (key === 'accepts')
    put(document, [...path, key], document.createNode(codesIn(String(value)), { flow: true }))
  else put(document, [...path, key], value)
  if (key === 'type') dropForeignDetails(document, path, String(value))
  return write(document)
}

const LOOKUP = /^[a-z][a-z0-9-]*\.[a-z]\w*$/

/** Codes come from a list, or from outside. */
function putChoices(document: Document, path: string[], said: string) {
  const isOutside = LOOKUP.test(said)
  document.deleteIn([...path, isOutside ? 'choices' : 'from'])
  if (isOutside) put(document, [...path, 'from'], said)
  else put(document, [...path, 'choices'], choicesNode(document, said))
}

const codesIn = (text: string) =>
  text
    .split(',')
    .map((code) => code.trim())
    .filter(Boolean)

/** A list of texts with commas between them. */
const listed = (node: unknown) =>
  isSeq(node) ? node.items.map((one) => (isScalar(one) ? String(one.value) : '')).join(', ') : optional(node)

/** A name alone is a choice list's; with commas, or in small letters, it is the codes. */
function choicesNode(document: Document, text: string) {
  const isListName = /^[A-Z]\w*$/.test(text.trim())
  const codes = codesIn(text)
  return isListName ? text.trim() : document.createNode(codes, { flow: true })
}

function dropForeignDetails(document: Document, path: string[], type: string) {
  const allowed = DETAILS[type] ?? []
  for (const detail of [
    'length',
    'scale',
    'choices',
    'to',
    'pattern',
    'multiline',
    'localised',
    'currency',
    'inverse',
    'accepts',
    'largest',
  ]) {
    if (!allowed.includes(detail as FieldKey)) document.deleteIn([...path, detail])
    if (!allowed.includes('choices')) document.deleteIn([...path, 'from'])
  }
}

/** What is known of a field before it is one. */
export interface FreshField {
  name: string
  label?: string
  type?: string
  length?: number
}

/** Adds fields at the end; those whose names are taken get others. */
export function addFields(text: string, place: Place, fresh: FreshField[]): string {
  const document = read(text)
  const taken = (readFields(text, place) ?? []).map((field) => field.name)
  for (const one of fresh) {
    let name = one.name
    for (let count = 2; taken.includes(name); count++) name = `${one.name}${count}`
    taken.push(name)
    const node: Record<string, unknown> = { type: one.type ?? 'text' }
    if (one.label) node.label = one.label
    if (one.length) node.length = one.length
    put(document, [...place, name], flow(document, node))
  }
  return write(document)
}

/** Adds a field at the end, with a name that is free. */
export function addField(text: string, place: Place): { text: string; name: string } {
  const document = read(text)
  const taken = (readFields(text, place) ?? []).map((field) => field.name)
  let name = 'newField'
  for (let count = 2; taken.includes(name); count++) name = `newField${count}`
  put(document, [...place, name], flow(document, { type: 'text' }))
  return { text: write(document), name }
}

export function removeField(text: string, place: Place, name: string): string {
  const document = read(text)
  document.deleteIn([...place, name])
  setKey(
    document,
    keyOf(document).filter((one) => one !== name),
  )
  return write(document)
}

/** Moves a field up (-1) or down (1). */
export function moveField(text: string, place: Place, name: string, by: -1 | 1): string {
  const document = read(text)
  const fields = document.getIn(place)
  if (isMap(fields)) {
    const at = fields.items.findIndex((pair) => nameOf(pair) === name)
    const to = at + by
    if (at >= 0 && to >= 0 && to < fields.items.length) {
      const [moved] = fields.items.splice(at, 1)
      fields.items.splice(to, 0, moved)
    }
  }
  return write(document)
}

/**
 * Gives a field another name. One that is released already also gets `was`, so that its values are kept;
 * a key follows.
 */
export function renameField(
  text: string,
  place: Place,
  from: string,
  to: string,
  released: string[],
): string {
  const document = read(text)
  const fields = document.getIn(place)
  if (!isMap(fields) || from === to || !to) return text
  const pair = fields.items.find((one) => nameOf(one) === from) as Pair | undefined
  if (!pair) return text
  if (isScalar(pair.key)) (pair.key as Scalar).value = to
  else pair.key = to
  if (isMap(pair.value)) {
    const was = pair.value.get('was')
    if (was === to) pair.value.delete('was')
    else if (was === undefined && released.includes(from)) pair.value.set('was', from)
  }
  if (place.length === 1) {
    setKey(
      document,
      keyOf(document).map((one) => (one === from ? to : one)),
    )
    if (document.getIn(['numbering', 'field']) === from) put(document, ['numbering', 'field'], to)
  }
  return write(document)
}

/** Makes a field part of the key, or takes it out. */
export function toggleKey(text: string, name: string): string {
  const document = read(text)
  const key = keyOf(document)
  setKey(document, key.includes(name) ? key.filter((one) => one !== name) : [...key, name])
  return write(document)
}

function keyOf(document: Document): string[] {
  const key = document.get('key')
  if (isSeq(key)) return key.items.map((one) => (isScalar(one) ? String(one.value) : ''))
  return key === undefined || key === null ? [] : [String(key)]
}

function setKey(document: Document, key: string[]) {
  if (key.join() === keyOf(document).join()) return
  if (key.length === 0) document.delete('key')
  else if (key.length === 1) document.set('key', key[0])
  else document.set('key', document.createNode(key, { flow: true }))
}

function number(value: unknown): number | undefined {
  return typeof value === 'number' ? value : undefined
}

/** The line on which something is said by name, from 1; undefined when it is not in the file. */
export function lineOf(text: string, name: string): number | undefined {
  const at = text.split('\n').findIndex((line) => new RegExp(`^\\s+(- name: )?${name}(:|$)`).test(line))
  return at < 0 ? undefined : at + 1
}
