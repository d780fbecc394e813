import { isScalar, parseDocument, type Document } from 'yaml'

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
