import { at } from './place'

/** A problem as the service tells it (RFC 9457), in words to show as they are. */
export interface Problem {
  title: string
  status: number
  detail: string
  errors?: { pointer: string; code: string; message: string }[]
}

/** Thrown for every answer that is not good. */
export class ApiProblem extends Error {
  constructor(readonly problem: Problem) {
    super(problem.detail || problem.title)
  }

  /** Messages by field: the pointer without its first slash. */
  byField(): Record<string, string> {
    const messages: Record<string, string> = {}
    for (const error of this.problem.errors ?? []) {
      const field = error.pointer.slice(1)
      messages[field] = messages[field] ? `${messages[field]} ${error.message}` : error.message
    }
    return messages
  }
}

/** The token that shows a change was meant by this page. */
export function forgeryToken(cookies: string = document.cookie): string {
  const found = cookies.split('; ').find((cookie) => cookie.startsWith('XSRF-TOKEN='))
  return found ? decodeURIComponent(found.slice('XSRF-TOKEN='.length)) : ''
}

/** Who hears that nobody is signed in any more, although a page is open. */
const listeners = new Set<() => void>()
export function onSessionEnded(listener: () => void): () => void {
  listeners.add(listener)
  return () => listeners.delete(listener)
}
const UNAUTHORIZED = 401
/** To be told of each answer; asking who is signed in is no sign that somebody was. */
export function noteStatus(status: number, path: string) {
  if (status === UNAUTHORIZED && !path.endsWith('/manage/v1/session')) listeners.forEach((one) => one())
}

/** Turns an answer that is not good into an {@link ApiProblem}. */
export async function problemOf(response: Response): Promise<ApiProblem> {
  const text = await response.text()
  try {
    return new ApiProblem(JSON.parse(text) as Problem)
  } catch {
    return new ApiProblem({
      title: '',
      status: response.status,
      detail: `The service answered ${response.status}.`,
    })
  }
}

/** Calls the service with plain JSON. */
export async function call<T>(
  method: string,
  path: string,
  body?: unknown,
  headers: Record<string, string> = {},
): Promise<T> {
  let response: Response
  try {
    response = await fetch(at(path), {
      method,
      headers: {
        Accept: 'application/json',
        ...(body === undefined ? {} : { 'Content-Type': 'application/json' }),
        'X-XSRF-TOKEN': forgeryToken(),
        ...headers,
      },
      body: body === undefined ? undefined : JSON.stringify(body),
    })
  } catch {
    throw new ApiProblem({ title: '', status: 0, detail: 'The service does not answer. Is it running?' })
  }
  if (!response.ok) {
    noteStatus(response.status, path)
    throw await problemOf(response)
  }
  return (response.status === 204 ? undefined : await response.json()) as T
}

/** Reads something that is no JSON, as it comes. */
export async function text(path: string): Promise<string> {
  const response = await fetch(at(path))
  if (!response.ok) {
    throw await problemOf(response)
  }
  return response.text()
}
