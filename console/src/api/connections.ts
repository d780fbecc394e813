import { api, unwrap, type Schemas } from './client'

export type ConnectionView = Schemas['ConnectionView']
export type ReachView = Schemas['ReachView']
export type DocumentView = Schemas['DocumentView']
export type OperationView = Schemas['OperationView']
export type ShapeView = Schemas['ShapeView']
export type OutsideTried = Schemas['OutsideTried']

export const findConnections = () => unwrap(api.GET('/manage/v1/connections'))

/** What can be chosen in a field whose codes come from outside: `tide-table.gauges`. */
export function findEntries(written: string, search: string) {
  const [connection, lookup] = written.split('.')
  return unwrap(
    api.GET('/manage/v1/lookups/{connection}/{lookup}', {
      params: { path: { connection, lookup }, query: { search } },
    }),
  )
}

const AS_TEXT = {
  bodySerializer: (body: unknown) => body as string,
  headers: { 'Content-Type': 'text/plain' },
}

/** What a document of OpenAPI offers. */
export const readDocument = (text: string): Promise<DocumentView> =>
  unwrap(api.POST('/manage/v1/documents/read', { body: text, ...AS_TEXT } as never))

/** The text of a document that stands somewhere. */
export const fetchDocument = async (address: string) =>
  (await unwrap(api.POST('/manage/v1/documents/fetch', { body: { address } }))).text

/** A document cut down to operations that are used, and how that differs from the one of a connection. */
export const excerptOf = (
  text: string,
  connection: string,
  operation: string[],
): Promise<{ text: string; differences: string[] }> =>
  unwrap(
    api.POST('/manage/v1/documents/excerpt', {
      params: { query: { connection, operation } },
      body: text,
      ...AS_TEXT,
    } as never),
  )

/** Asks a service for something, so that its answer can be looked at. */
export const tryOperation = (
  setting: string,
  operation: string,
  values: { name: string; place: string; value: string }[],
) => unwrap(api.POST('/manage/v1/documents/try', { body: { setting, operation, values } }))

/** Asks what a connection offers. */
export const tryConnection = (name: string, what: string, values: Record<string, unknown>) =>
  unwrap(
    api.POST('/manage/v1/connections/{name}/{what}/try', {
      params: { path: { name, what } },
      body: { values } as never,
    }),
  )
