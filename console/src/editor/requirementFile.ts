import { isMap, type Document, type YAMLMap } from 'yaml'
import { nameOf, put, read, write } from './yamlFile'

/** A value of an example as it is written: text, numbers, lists of line items. */
export type Given = string | number | boolean | null | Given[] | { [name: string]: Given }
export type GivenValues = Record<string, Given>

export const ACTIONS = ['create', 'change', 'retire', 'call', 'transition'] as const
export type ActionKind = (typeof ACTIONS)[number]

/** Something that is done in an example. */
export interface Action {
  kind: ActionKind
  /** The object, record, function or transition. */
  target: string
  of?: string
  values?: GivenValues
  with?: GivenValues
  as?: string
  by?: string
}

/** What comes of it. */
export interface Expected {
  refused?: string
  at?: string
  warns?: string
  result?: Given
  values?: GivenValues
  records?: Record<string, GivenValues>
  events?: Given[]
}

export interface Example {
  name: string
  label?: string
  today?: string
  given: Action[]
  when: Action[]
  then: Expected
}

export interface RequirementRow {
  id: string
  text: string
  examples: Example[]
}

export interface RequirementFile {
  given: Action[]
  requirements: RequirementRow[]
}

/** What a file of requirements says, or undefined while it cannot be read as YAML. */
export function readRequirements(text: string): RequirementFile | undefined {
  const document = read(text)
  if (document.errors.length) return undefined
  const plain = (document.toJS() ?? {}) as Record<string, unknown>
  const requirements = asMap(plain.requirements)
  return {
    given: actions(plain.given),
    requirements: Object.entries(requirements).map(([id, one]) => ({
      id,
      text: said(asMap(one).text),
      examples: Object.entries(asMap(asMap(one).examples)).map(([name, example]) => {
        const of = asMap(example)
        return {
          name,
          label: of.label === undefined ? undefined : said(of.label),
          today: of.today === undefined ? undefined : said(of.today),
          given: actions(of.given),
          when: actions(of.when),
          then: asMap(of.then) as Expected,
        }
      }),
    })),
  }
}

const asMap = (value: unknown) =>
  (value && typeof value === 'object' && !Array.isArray(value) ? value : {}) as Record<string, unknown>
const said = (value: unknown) => (value === undefined || value === null ? '' : String(value))

function actions(value: unknown): Action[] {
  const all = Array.isArray(value) ? value : value ? [value] : []
  return all.map((one) => {
    const of = asMap(one)
    const kind = ACTIONS.find((known) => known in of) ?? 'create'
    const action: Action = { kind, target: said(of[kind]) }
    if (of.of !== undefined) action.of = said(of.of)
    if (of.values !== undefined) action.values = of.values as GivenValues
    if (of.with !== undefined) action.with = of.with as GivenValues
    if (of.as !== undefined) action.as = said(of.as)
    if (of.by !== undefined) action.by = said(of.by)
    return action
  })
}

function plainAction(action: Action) {
  const { kind, target, ...more } = action
  const plain: Record<string, unknown> = { [kind]: target }
  for (const [key, value] of Object.entries(more))
    if (value !== undefined && value !== '' && !isEmpty(value)) plain[key] = value
  return plain
}

const isEmpty = (value: unknown) =>
  !!value && typeof value === 'object' && !Array.isArray(value) && !Object.keys(value).length

/** Each action in one line, as people write them. */
function actionNodes(document: Document, all: Action[]) {
  const node = document.createNode(all.map(plainAction)) as { items: { flow?: boolean }[] }
  node.items.forEach((one) => (one.flow = true))
  return node
}

function exampleNode(document: Document, example: Example): YAMLMap {
  const node = document.createNode({}) as unknown as YAMLMap
  if (example.label) node.set('label', example.label)
  if (example.today) node.set('today', example.today)
  if (example.given.length) node.set('given', actionNodes(document, example.given))
  node.set('when', actionNodes(document, example.when))
  const expected = Object.fromEntries(
    Object.entries(example.then).filter(([key, value]) =>
      // Without words, any refusal is meant.
      key === 'refused' ? value !== undefined : value !== undefined && value !== '' && !isEmpty(value),
    ),
  )
  node.set('then', document.createNode(expected, { flow: true }))
  return node
}

export function setGiven(text: string, given: Action[]): string {
  const document = read(text)
  if (!given.length) {
    document.delete('given')
    return write(document)
  }
  const isNew = !document.has('given')
  put(document, ['given'], actionNodes(document, given))
  if (isNew && isMap(document.contents)) {
    // It stands before what it is given for.
    const pair = document.contents.items.pop()!
    document.contents.items.unshift(pair)
  }
  return write(document)
}

export function setRequirementText(text: string, id: string, words: string): string {
  const document = read(text)
  put(document, ['requirements', id, 'text'], words)
  return write(document)
}

/** The first number that no requirement of any file has. */
export function nextId(taken: string[]): string {
  const known = new Set(taken)
  const numbered = taken.map((one) => /^(.*?)(\d+)$/.exec(one)).filter((one) => !!one)
  const last = numbered.at(-1)
  const [prefix, width] = last ? [last[1], last[2].length] : ['R-', 1]
  for (let count = 1; ; count++) {
    const id = prefix + String(count).padStart(width, '0')
    if (!known.has(id)) return id
  }
}

export function addRequirement(text: string, id: string): string {
  const document = read(text)
  put(document, ['requirements', id], document.createNode({ text: 'What was asked for.' }))
  return write(document)
}

export function removeRequirement(text: string, id: string): string {
  const document = read(text)
  document.deleteIn(['requirements', id])
  return write(document)
}

/** Puts an example in the place of the one with its name, or at the end. */
export function setExample(text: string, id: string, example: Example): string {
  const document = read(text)
  put(document, ['requirements', id, 'examples', example.name], exampleNode(document, example))
  return write(document)
}

export function removeExample(text: string, id: string, name: string): string {
  const document = read(text)
  const examples = document.getIn(['requirements', id, 'examples'])
  document.deleteIn(
    isMap(examples) && examples.items.length === 1 && nameOf(examples.items[0]) === name
      ? ['requirements', id, 'examples']
      : ['requirements', id, 'examples', name],
  )
  return write(document)
}

/** An example to begin with. */
export function newExample(taken: string[], object: string): Example {
  let name = 'example'
  for (let count = 2; taken.includes(name); count++) name = `example${count}`
  return {
    name,
    given: [],
    when: [{ kind: 'create', target: object, values: {} }],
    then: { values: {} },
  }
}
