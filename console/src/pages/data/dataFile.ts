import Papa from 'papaparse'
import type { ObjectView } from '@/api/client'
import type { Plain, RecordView } from '@/api/records'
import { fileIn } from '@/components/keptFile'

/** A file of records as it was read, before its columns mean anything. */
export interface DataFile {
  name: string
  columns: string[]
  /** Values by column; out of JSON Lines they may be more than texts. */
  rows: Record<string, Plain>[]
}

const LARGEST = 20_000_000
const MOST_COLUMNS = 1_000

/** Reads CSV or JSON Lines; says in words what is wrong with it. */
export async function readDataFile(file: File): Promise<DataFile> {
  if (file.size > LARGEST)
    throw new Error(`${file.name} is larger than 20 MB; bring it in with sandpiper records import.`)
  const text = decode(file.name, new Uint8Array(await file.arrayBuffer()))
  const read = /\.(jsonl|ndjson|json)$/i.test(file.name) ? jsonLines(text) : csv(text)
  if (!read.rows.length) throw new Error(`${file.name} holds no rows.`)
  if (read.columns.length > MOST_COLUMNS)
    throw new Error(`${file.name} has ${read.columns.length} columns; more than 1,000 are not read.`)
  return { name: file.name, ...read }
}

function decode(name: string, bytes: Uint8Array): string {
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes).replace(/^\uFEFF/, '')
  } catch {
    throw new Error(`${name} is not UTF-8. Save it so ("CSV UTF-8" in a spreadsheet) and choose it again.`)
  }
}

function csv(text: string) {
  const parsed = Papa.parse<Record<string, string>>(text, {
    header: true,
    skipEmptyLines: 'greedy',
    transformHeader: (header) => header.trim(),
  })
  const columns = (parsed.meta.fields ?? []).filter(Boolean)
  const quotes = parsed.errors.find((one) => one.type === 'Quotes')
  if (quotes) throw new Error(`Row ${(quotes.row ?? 0) + 1}: a quote is opened and not closed.`)
  if (new Set(columns).size !== columns.length) throw new Error('Two columns have the same name.')
  return { columns, rows: parsed.data }
}

function jsonLines(text: string) {
  const rows: Record<string, Plain>[] = []
  const columns: string[] = []
  for (const [at, line] of text.split(/\r?\n/).entries()) {
    if (!line.trim()) continue
    let row: unknown
    try {
      row = JSON.parse(line)
    } catch {
      throw new Error(`Line ${at + 1} is not JSON.`)
    }
    if (row === null || typeof row !== 'object' || Array.isArray(row))
      throw new Error(`Line ${at + 1} is not an object with fields.`)
    rows.push(row as Record<string, Plain>)
    for (const name of Object.keys(row)) if (!columns.includes(name)) columns.push(name)
  }
  return { columns, rows }
}

/** Where values can go: fields, languages of localised ones, and fields of line items. */
export function targetsOf(object: ObjectView): { value: string; label: string }[] {
  const own = object.fields
    .filter((field) => !field.formula)
    .flatMap((field) =>
      field.languages.length
        ? field.languages.map((one) => ({ value: `${field.name}.${one}`, label: `${field.label} (${one})` }))
        : [{ value: field.name, label: field.label }],
    )
  const items = object.parts.flatMap((part) => [
    { value: part.name, label: `${part.label}, as a list` },
    ...part.fields
      .filter((field) => !field.formula)
      .map((field) => ({ value: `${part.name}.${field.name}`, label: `${part.label}: ${field.label}` })),
  ])
  return [...own, ...items]
}

const plain = (text: string) =>
  text
    .toLowerCase()
    .normalize('NFD')
    .replace(/\p{M}|[^a-z0-9.]/gu, '')

/** The target each column most likely means; those that mean none are left out. */
export function guess(columns: string[], object: ObjectView): Record<string, string> {
  const targets = targetsOf(object)
  const guessed: Record<string, string> = {}
  for (const column of columns) {
    const found =
      targets.find((one) => one.value === column) ??
      targets.find((one) => plain(one.value) === plain(column) || plain(one.label) === plain(column)) ??
      targets.find((one) => one.value.startsWith(`${column}.`) && isLocalised(object, column))
    if (found && !Object.values(guessed).includes(found.value)) guessed[column] = found.value
  }
  return guessed
}

const isLocalised = (object: ObjectView, name: string) =>
  object.fields.some((field) => field.name === name && field.languages.length > 0)

/** A record that a file holds, with the rows it comes from, counted from 1. */
export interface FileRecord {
  values: Record<string, Plain>
  rows: number[]
}

/** Makes records of rows; rows that follow each other with the same key are line items of one. */
export function recordsOf(
  file: DataFile,
  matching: Record<string, string>,
  object: ObjectView,
): FileRecord[] {
  const parts = object.parts.map((part) => part.name)
  const records: FileRecord[] = []
  file.rows.forEach((row, at) => {
    const values: Record<string, Plain> = {}
    const items: Record<string, Record<string, Plain>> = {}
    for (const [column, target] of Object.entries(matching)) {
      const value = row[column]
      if (value === undefined || value === null || value === '') continue
      const [first, second] = target.split('.')
      if (second === undefined) values[first] = value
      else if (parts.includes(first)) items[first] = { ...items[first], [second]: value }
      else values[first] = { ...((values[first] as Record<string, Plain>) ?? {}), [second]: value }
    }
    const before = records.at(-1)
    const isSame =
      before !== undefined &&
      Object.keys(items).length > 0 &&
      object.key.length > 0 &&
      object.key.every((name) => values[name] !== undefined && values[name] === before.values[name])
    const record = isSame ? before : { values, rows: [] }
    for (const [part, item] of Object.entries(items))
      record.values[part] = [...((record.values[part] as Plain[]) ?? []), item]
    record.rows.push(at + 1)
    if (!isSame) records.push(record)
  })
  return records
}

const FULL = 500_000

/** The next records to be sent together: so many, or fewer where they have much in them, such as files. */
export function portion(records: FileRecord[], from: number, most: number): FileRecord[] {
  let weight = 0
  let end = from
  while (end < records.length && end - from < most && weight < FULL)
    weight += JSON.stringify(records[end++].values).length
  return records.slice(from, end)
}

/** Refused rows as CSV, with why, to be mended and brought in again. */
export function refusedCsv(file: DataFile, refused: { rows: number[]; reason: string }[]): string {
  const lines = refused.flatMap((one) =>
    one.rows.map((row) => ({ ...file.rows[row - 1], 'why it was refused': one.reason })),
  )
  return Papa.unparse(
    lines.map((line) =>
      Object.fromEntries(
        Object.entries(line).map(([name, value]) => [
          name,
          typeof value === 'object' ? JSON.stringify(value) : value,
        ]),
      ),
    ),
  )
}

/** Records as CSV with the given fields, localised ones in a column for each language. */
export function recordsCsv(object: ObjectView, fields: string[], records: RecordView[]): string {
  const columns = fields.flatMap((name) => {
    const field = object.fields.find((one) => one.name === name)
    return field?.languages.length ? field.languages.map((one) => `${name}.${one}`) : [name]
  })
  const rows = records.map((record) =>
    columns.map((column) => {
      const [name, language] = column.split('.')
      const value = record.values[name]
      if (value === null || value === undefined) return ''
      if (language && typeof value === 'object' && !Array.isArray(value)) return value[language] ?? ''
      const file = fileIn(value)
      if (file) return `${file.name}; type=${file.type}; size=${file.size}; sha256=${file.sha256}`
      return typeof value === 'object' ? JSON.stringify(value) : value
    }),
  )
  // As they are, so that the file can be brought in again: a telephone number begins with a plus.
  return Papa.unparse({ fields: columns, data: rows })
}

/** Hands a text to the browser as a file. */
export function download(name: string, text: string) {
  const link = document.createElement('a')
  link.href = URL.createObjectURL(new Blob([text], { type: 'text/csv;charset=utf-8' }))
  link.download = name
  link.click()
  setTimeout(() => URL.revokeObjectURL(link.href), 1_000)
}
