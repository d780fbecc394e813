import { isCollection, isMap, isScalar, isSeq, parseDocument, YAMLMap, YAMLSeq, type Document } from 'yaml'

/** What documents were read from, so that lines nobody touched are written as they were. */
const sources = new WeakMap<Document, string>()

/** Definitions are small; what is large and JSON is the contract of an outside service, and nobody edits it. */
const LARGE = 200_000
const isContract = (text: string) => text.length > LARGE && text.trimStart().startsWith('{')

/** The text of a definition file as a document that keeps comments and order. */
export function read(text: string): Document {
  const document = parseDocument(isContract(text) ? '' : text, {
    keepSourceTokens: false,
  }) as unknown as Document
  sources.set(document, text)
  return document
}

/** A document as text again; lines are never folded, and those that say the same stay as they were. */
export function write(document: Document): string {
  const written = document.toString({ lineWidth: 0, flowCollectionPadding: true })
  const source = sources.get(document)
  if (source === undefined) return written
  const kept = withLinesOf(source, written)
  return isSame(kept, written) ? kept : written
}

/** A line without space that says nothing: within brackets, and more than one between words. */
const bare = (line: string) =>
  line
    .replace(/(?<=\S) +/g, ' ')
    .replace(/([[{]) /g, '$1')
    .replace(/ ([\]}])/g, '$1')

const QUOTED = /("[^"]*"|'[^']*')/

/** Lists without space inside of their brackets; texts in quotes stay as they are. */
const tight = (line: string) =>
  line
    .split(QUOTED)
    .map((part, at) => (at % 2 ? part : part.replace(/\[ +/g, '[').replace(/ +\]/g, ']')))
    .join('')

function withLinesOf(source: string, written: string): string {
  const before = new Map<string, string>()
  for (const line of source.split('\n')) if (!before.has(bare(line))) before.set(bare(line), line)
  const isTight = source.split('\n').every((line) => tight(line) === line)
  return written
    .split('\n')
    .map((line) => before.get(bare(line)) ?? (isTight ? tight(line) : line))
    .join('\n')
}

/** Brackets may stand in texts, where space does say something. */
function isSame(one: string, other: string): boolean {
  if (one === other) return true
  const plain = (text: string) => JSON.stringify(parseDocument(text).toJS() as unknown)
  try {
    return plain(one) === plain(other)
  } catch {
    return false
  }
}

/** A value to be written in one line. */
export function flow(document: Document, value: Record<string, unknown>) {
  return document.createNode(value, { flow: true })
}

/** The name of an entry of a map. */
export function nameOf(pair: { key: unknown }): string {
  return isScalar(pair.key) ? String(pair.key.value) : String(pair.key)
}

/** What was said, as text, or undefined when nothing was. */
export function optional(value: unknown): string | undefined {
  return value === undefined || value === null ? undefined : String(value)
}

type Path = readonly (string | number)[]

/**
 * Makes sure that there is a map, or a list where a number follows, at each step of a path: what is not there
 * yet, or is empty, becomes one.
 */
function prepare(document: Document, path: Path) {
  if (!isCollection(document.contents))
    document.contents = new YAMLMap() as unknown as typeof document.contents
  for (let length = 1; length < path.length; length++) {
    const at = path.slice(0, length)
    const there = document.getIn(at)
    // What is empty is written in one line; what comes into it would make that a very long one.
    if (length === 1 && isMap(there) && !there.items.length) there.flow = false
    const isList = typeof path[length] === 'number'
    if (isList ? isSeq(there) : isMap(there)) continue
    document.setIn(at, isList ? new YAMLSeq() : new YAMLMap())
  }
}

/** Sets what is at a path, whatever was there before. */
export function put(document: Document, path: Path, value: unknown) {
  prepare(document, path)
  document.setIn(path, value)
}

/** Adds to the end of a list, which may not be there yet. */
export function append(document: Document, path: Path, value: unknown) {
  prepare(document, [...path, 0])
  document.addIn(path, value)
}
