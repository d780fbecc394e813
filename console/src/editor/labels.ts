import { isMap, isScalar, type Document } from 'yaml'
import { nameOf, put } from './yamlFile'

/** Labels by language, the main one first; of a plain label only that of the main language. */
export type Spoken = Record<string, string>

const plain = (value: unknown) => {
  const inner = isScalar(value) ? value.value : value
  return inner === undefined || inner === null ? undefined : String(inner)
}

/** The labels that stand at a place: one text, or one for each language. */
export function readSpoken(value: unknown, main = 'en'): Spoken {
  if (isMap(value))
    return Object.fromEntries(value.items.map((pair) => [nameOf(pair), plain(pair.value) ?? '']))
  const text = plain(value)
  return text === undefined ? {} : { [main]: text }
}

/** The label in the main language, which comes first. */
export const mainLabel = (value: unknown): string | undefined => Object.values(readSpoken(value))[0]

/** What stands for labels in a file: nothing, one text, or one for each language. */
export function spokenNode(document: Document, spoken: Spoken, main: string) {
  const filled = Object.entries(spoken).filter(([, text]) => text.trim())
  if (!filled.length) return undefined
  if (filled.length === 1 && filled[0][0] === main) return document.createNode(filled[0][1])
  const ordered = [...filled.filter(([language]) => language === main), ...filled.filter(([l]) => l !== main)]
  return document.createNode(Object.fromEntries(ordered), { flow: true })
}

/** Sets the label of one language at a place, and keeps those of the others. */
export function setSpoken(
  document: Document,
  path: (string | number)[],
  language: string,
  text: string,
  main: string,
) {
  const spoken = { ...readSpoken(document.getIn(path), main), [language]: text.trim() }
  const node = spokenNode(document, spoken, main)
  if (node === undefined) document.deleteIn(path)
  else put(document, path, node)
}
