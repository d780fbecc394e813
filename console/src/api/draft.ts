import { api, unwrap, type Diagnostic } from './client'

/** Keeps a file of the draft; with the text the change began with, somebody else's change is noticed (409). */
export async function keepFile(path: string, text: string, base?: string): Promise<Diagnostic[]> {
  return (await unwrap(api.PUT('/manage/v1/draft/file', { body: { path, text, base } }))).diagnostics
}

/** Takes a file out of the draft. */
export async function removeFile(path: string): Promise<Diagnostic[]> {
  return (await unwrap(api.DELETE('/manage/v1/draft/file', { params: { query: { path } } }))).diagnostics
}

/** Takes a package out of the draft as a whole. */
export async function removePackage(name: string): Promise<Diagnostic[]> {
  return (await unwrap(api.DELETE('/manage/v1/draft/package', { params: { query: { name } } }))).diagnostics
}

/** Gives a file another path. */
export async function moveFile(from: string, to: string): Promise<Diagnostic[]> {
  return (await unwrap(api.POST('/manage/v1/draft/move', { body: { from, to } }))).diagnostics
}

/** Makes files what they are in the live release; without paths, the whole draft. */
export async function takeBack(paths?: string[]): Promise<Diagnostic[]> {
  return (await unwrap(api.POST('/manage/v1/draft/take-back', { body: { paths } }))).diagnostics
}

/** What a file was before, newest first. */
export const versionsOf = (path?: string) =>
  unwrap(api.GET('/manage/v1/draft/versions', { params: { query: { path } } }))

/** Takes a packed package into the draft, after the service has looked through it. */
export const unpack = (archive: Blob) =>
  unwrap(
    api.POST('/manage/v1/packages/unpack', {
      body: archive as unknown as string,
      bodySerializer: (body) => body,
      headers: { 'Content-Type': 'application/zip' },
    }),
  )
