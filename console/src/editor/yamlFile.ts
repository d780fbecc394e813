import { isCollection, isMap, isScalar, isSeq, parseDocument, YAMLMap, YAMLSeq, type Document } from 'yaml'

/** The text of a definition file as a document that keeps comments and order. */
export function read(text: string): Document {
  return parseDocument(text, { keepSourceTokens: false }) as unknown as Document
}

/** A document as text again; lines are never folded. */
export function write(document: Document): string {
  return document.toString({ lineWidth: 0, flowCollectionPadding: true })
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
