import { call } from './http'

export type Plain = string | number | boolean | null | Plain[] | { [name: string]: Plain }
export type Values = Record<string, Plain>

/** A record with its values, and beside them what people recognise linked records by. */
export interface RecordView {
  id: string
  version: number
  retired: boolean
  createdAt: string
  createdBy: string
  changedAt: string
  changedBy: string
  values: Values
  titles: Record<string, string | Record<string, string>[]>
}

export interface Page {
  records: RecordView[]
  next: string | null
  total: number | null
}

export interface HistoryEntry {
  version: number
  at: string
  by: string
  via: string
  operation: string
  changes: { path: string; before: string | null; after: string | null }[]
}

export interface Search {
  filter?: string
  search?: string
  sort?: string
  after?: string
  limit?: number
  count?: boolean
  retired?: string
}

const base = (object: string) => `/manage/v1/records/${encodeURIComponent(object)}`

export function findRecords(object: string, search: Search): Promise<Page> {
  const parameters = new URLSearchParams()
  for (const [name, value] of Object.entries(search)) {
    if (value !== undefined && value !== '') parameters.set(name, String(value))
  }
  return call('GET', `${base(object)}?${parameters}`)
}

export const showRecord = (object: string, key: string) =>
  call<RecordView>('GET', `${base(object)}/${encodeURIComponent(key)}`)

export const createRecord = (object: string, values: Values) => call<RecordView>('POST', base(object), values)

/** Changes a record, unless somebody else has changed it since the given version. */
export const changeRecord = (object: string, id: string, version: number, values: Values) =>
  call<RecordView>('PATCH', `${base(object)}/${id}`, values, { 'If-Match': `"${version}"` })

/** Retires or deletes a record; `used` says that it is meant although others refer to it. */
export const removeRecord = (object: string, id: string, used = false) =>
  call<RecordView | undefined>(
    'DELETE',
    `${base(object)}/${id}`,
    undefined,
    used ? { 'Sandpiper-Confirm': 'in-use' } : {},
  )

export const restoreRecord = (object: string, id: string) =>
  call<RecordView>('POST', `${base(object)}/${id}/restore`)

export const recordHistory = (object: string, id: string) =>
  call<{ entries: HistoryEntry[] }>('GET', `${base(object)}/${id}/history`)

/**
 * What stands for a record in an address and in references to it: the values of its key with commas between
 * them, or its id when it has none.
 */
export function addressOf(key: string[], record: RecordView): string {
  const values = key.map((name) => record.values[name])
  if (!key.length || values.some((value) => value === null || typeof value === 'object')) return record.id
  return values.length === 1 ? String(values[0]) : values.map((value) => escaped(String(value))).join(',')
}

const escaped = (value: string) => value.replaceAll('\\', '\\\\').replaceAll(',', '\\,')
