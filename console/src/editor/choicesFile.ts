import { isMap, isScalar, isSeq, Pair, Scalar, YAMLMap } from 'yaml'
import { readSpoken, spokenNode, type Spoken } from './labels'
import { nameOf, put, read, write } from './yamlFile'

/** A code with what people read for it; without a label it is read as it is. */
export interface ChoiceRow {
  code: string
  /** The label in the main language. */
  label: string
  /** Labels in further languages. */
  labels: Spoken
}

/** The codes of a choice list, in order. */
export function readChoices(text: string, main = 'en'): ChoiceRow[] {
  const codes = read(text).get('codes')
  if (isSeq(codes))
    return codes.items.map((one) => ({
      code: String(isScalar(one) ? one.value : one),
      label: '',
      labels: {},
    }))
  if (!isMap(codes)) return []
  return codes.items.map((pair) => {
    const { [main]: label = '', ...labels } = readSpoken(pair.value, main)
    return { code: nameOf(pair), label, labels }
  })
}

/** Puts other codes in the place of those there are; what else the file says stays. */
export function writeChoices(text: string, rows: ChoiceRow[], main = 'en'): string {
  const document = read(text)
  const codes = new YAMLMap()
  for (const row of rows) {
    const spoken = spokenNode(document, { [main]: row.label || row.code, ...row.labels }, main)
    codes.items.push(new Pair(new Scalar(row.code), spoken))
  }
  put(document, ['codes'], codes)
  return write(document)
}

/** What a choice list calls itself. */
export function choicesName(text: string): string | undefined {
  const name = read(text).get('choices')
  return typeof name === 'string' ? name : undefined
}

/** A new list. */
export function newChoices(name: string, rows: ChoiceRow[], main = 'en'): string {
  return writeChoices(`choices: ${name}\ncodes: {}\n`, rows, main)
}

/** What keeps rows from being a list, or nothing. */
export function wrongChoices(rows: ChoiceRow[]): string {
  if (!rows.length) return 'A list needs at least one code.'
  const twice = rows.find((row, at) => rows.findIndex((one) => one.code === row.code) !== at)
  if (twice) return `The code ${twice.code} stands here twice.`
  const empty = rows.some((row) => !row.code.trim() || row.code.length > 60)
  return empty ? 'Each row needs a code of at most 60 characters.' : ''
}
