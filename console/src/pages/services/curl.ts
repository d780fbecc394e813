/** One call of a service as it is tried. */
export interface Trial {
  method: string
  path: string
  body?: string
  /** The content type of the body; JSON when absent. */
  type?: string
  /** The ETag of the record as it was read, for a change that says which version it is based on. */
  ifMatch?: string
}

const quoted = (text: string) => `'${text.replaceAll("'", `'\\''`)}'`

/** The same call for a shell, with a client's id to be filled in. */
export function asCurl(trial: Trial, origin: string): string {
  const parts = ['curl -u CLIENT:SECRET']
  if (trial.method !== 'GET') parts.push(`-X ${trial.method}`)
  if (trial.body)
    parts.push(`-H 'Content-Type: ${trial.type ?? 'application/json'}' -d ${quoted(trial.body)}`)
  if (trial.ifMatch) parts.push(`-H ${quoted(`If-Match: ${trial.ifMatch}`)}`)
  parts.push(quoted(origin + trial.path))
  return parts.join(' \\\n  ')
}
