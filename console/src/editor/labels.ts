import { isMap, isScalar, type Document } from 'yaml'
import { nameOf, put, read, write } from './yamlFile'

/** Labels by language, the main one first; of a plain label only that of the main language. */
export type Spoken = Record<string, string>

const plain = (value: unknown) => {
  const inner = isScalar(value) ? value.value : value
  return inner === undefined || inner === null ? undefined : String(inner)
}

/** The labels that stand at a place: one text, or one for each language. */
export function readSpoken(value: unknown, main: string): Spoken {
  if (isMap(value))
    return Object.fromEntries(value.items.map((pair) => [nameOf(pair), plain(pair.value) ?? '']))
  const text = plain(value)
  return text === undefined ? {} : { [main]: text }
}

/** What stands for labels in a file: nothing, one text, or one for each language. */
export function spokenNode(document: Document, spoken: Spoken, main: string) {
  const filled = Object.entries(spoken).filter(([, text]) => text.trim())
  if (!filled.length) return undefined
  if (filled.length === 1 && filled[0][0] === main) return document.createNode(filled[0][1])
  const ordered = [...filled.filter(([language]) => language === main), ...filled.filter(([l]) => l !== main)]
  return document.createNode(Object.fromEntries(ordered), { flow: true })
}

/** The labels at a place with another one in one language; undefined when none is left. */
export function spokenWith(
  document: Document,
  value: unknown,
  language: string,
  label: string,
  main: string,
) {
  return spokenNode(document, { ...readSpoken(value, main), [language]: label }, main)
}

/** Sets the label at a path in one language, and keeps those of the others. */
export function setLabel(
  text: string,
  path: (string | number)[],
  language: string,
  label: string,
  main: string,
): string {
  const document = read(text)
  const node = spokenWith(document, document.getIn(path), language, label, main)
  if (node === undefined) document.deleteIn(path)
  else put(document, path, node)
  return write(document)
}
