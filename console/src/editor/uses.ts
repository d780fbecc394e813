import { isPair, isScalar, LineCounter, parseDocument, visit } from 'yaml'

/** Something that can be named elsewhere. */
export type Subject =
  | { kind: 'object'; name: string }
  | { kind: 'field' | 'function'; object: string; name: string }
  | { kind: 'choices' | 'event'; name: string }
  /** What an outside service gives, as in `tide-table.rate`. */
  | { kind: 'outside'; name: string }

export interface Use {
  file: string
  line: number
  /** Where in the file, such as `fields › nights › formula`. */
  what: string
  text: string
}

interface Spot {
  path: string[]
  text: string
  line: number
  isKey: boolean
}

/** Every place of the files that names something, in their order. What a definition says of itself is none. */
export function usesOf(files: { path: string; text: string }[], subject: Subject): Use[] {
  const spots = files.map((file) => ({ file, spots: spotsOf(file.text), own: ownerOf(file.text) }))
  const related =
    'object' in subject
      ? spots.filter(({ spots: all }) => all.some((one) => !one.isKey && names(one.text, subject.object)))
      : spots
  return related.flatMap(({ file, spots: all, own }) =>
    all
      .filter((one) => isUse(one, subject, own))
      .map((one) => ({ file: file.path, line: one.line, what: one.path.join(' › '), text: one.text })),
  )
}

/** The object a file defines or extends. */
const ownerOf = (text: string) =>
  /^view:/m.test(text) ? undefined : /^(?:object|extend):\s*(\w+)/m.exec(text)?.[1]

function spotsOf(text: string): Spot[] {
  const counter = new LineCounter()
  const document = parseDocument(text, { lineCounter: counter })
  const spots: Spot[] = []
  visit(document, {
    Scalar(key, node, ancestors) {
      const path = ancestors.filter(isPair).map((pair) => (isScalar(pair.key) ? String(pair.key.value) : ''))
      const line = counter.linePos(node.range?.[0] ?? 0).line
      spots.push({
        path: key === 'key' ? path.slice(0, -1) : path,
        text: String(node.value ?? ''),
        line,
        isKey: key === 'key',
      })
    },
  })
  return spots
}

/** A name as a word of its own. */
const names = (text: string, name: string) => new RegExp(`(^|[^\\w.-])${name}(?![\\w-])`).test(text)
const namesBehindPoint = (text: string, name: string) => new RegExp(`\\.${name}(?!\\w)`).test(text)

/** Texts for people name nothing. */
const SPOKEN = ['label', 'plural', 'describe', 'heading', 'text']

function isUse(spot: Spot, subject: Subject, own: string | undefined): boolean {
  const last = spot.path.at(-1) ?? ''
  // A view says of which object it is, and defines none.
  const isDefinition =
    spot.path.length === 1 &&
    (last === 'object' ? own !== undefined : ['choices', 'event', 'service', 'route', 'view'].includes(last))
  if (isDefinition || SPOKEN.includes(last)) return false
  switch (subject.kind) {
    case 'object':
      return !spot.isKey && names(spot.text, subject.name)
    case 'choices':
      return last === 'choices' && spot.text === subject.name
    case 'outside':
    case 'event':
      return !spot.isKey && names(spot.text, subject.name)
    case 'field':
    case 'function': {
      const home = subject.kind === 'field' ? 'fields' : 'functions'
      if (spot.isKey) {
        // Values and details are given by the names of fields.
        return (
          spot.text === subject.name &&
          ['values', 'details', 'preset', 'fill'].includes(spot.path.at(-1) ?? '')
        )
      }
      const isInside = spot.path[0] === home && spot.path[1] === subject.name && spot.path.length <= 3
      if (isInside && ['type', 'to', 'choices', 'default', 'inverse'].includes(last)) return false
      return own === subject.object
        ? names(spot.text, subject.name) || namesBehindPoint(spot.text, subject.name)
        : namesBehindPoint(spot.text, subject.name) ||
            (isListOf(spot) && names(spot.text.replace(/[(,]/g, ' '), subject.name))
    }
  }
}

/** Lists of fields in services name them without a point. */
const isListOf = (spot: Spot) =>
  [
    'fields',
    'filter',
    'sort',
    'columns',
    'wide',
    'leaveOut',
    'calls',
    'at',
    'after',
    'call',
    'by',
    'sum',
  ].includes(spot.path.at(-1) ?? '')
