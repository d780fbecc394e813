import type { ServiceView } from '@/api/client'

/** One thing a client may do: a service, a resource and an operation, with * for all. */
export interface Grant {
  service: string
  resource: string
  operation: string
  /** A condition in FEEL on the records it reaches; all when absent. */
  where?: string
}

export const ANY = '*'

/** What stands in the place of a resource for functions on no record, and for events. */
const FUNCTIONS = 'functions'
const EVENTS = 'events'

/** A grant of its text: {@code berth-desk/stays/create}. */
export function grantOf(text: string): Grant {
  const [, service, resource, operation, where] =
    text.match(/^([^/]*)\/?([^/]*)\/?(\S*)(?:\s+where\s+([\s\S]+))?$/) ?? []
  return { service: service || ANY, resource: resource || ANY, operation: operation || ANY, where }
}

export const textOf = (grant: Grant) =>
  `${grant.service}/${grant.resource}/${grant.operation}` +
  (grant.where?.trim() ? ` where ${grant.where.trim()}` : '')

/** The names a grant can have at each of its places, by what is chosen before it. */
export function choices(services: ServiceView[], grant: Grant) {
  const chosen = services.filter((one) => grant.service === ANY || one.name === grant.service)
  const resources = chosen.flatMap((one) => one.resources)
  const shown = resources.filter((one) => grant.resource === ANY || one.name === grant.resource)
  const isMeant = (name: string) => grant.resource === ANY || grant.resource === name
  const functions = chosen.flatMap((one) => one.functions.map((called) => called.call.name))
  const events = chosen.some((one) => one.events.length)
  return {
    services: unique(services.map((one) => one.name)),
    resources: unique([
      ...resources.map((one) => one.name),
      ...(functions.length ? [FUNCTIONS] : []),
      ...(events ? [EVENTS] : []),
    ]),
    operations: unique([
      ...shown.flatMap((one) => [...Object.keys(one.operations), ...one.calls.map((call) => call.name)]),
      ...(isMeant(FUNCTIONS) ? functions : []),
      ...(isMeant(EVENTS) && events ? ['read'] : []),
    ]),
  }
}

function unique(names: string[]): string[] {
  return [ANY, ...[...new Set(names)].sort()]
}

/** What a role may do with the records of an object, in a sentence. */
export function grantWords(grant: {
  object: string
  actions: string[]
  where?: string
  hidden?: string[]
  readOnly?: string[]
}): string {
  const of = grant.object === '*' ? 'everything' : grant.object
  const words = [`${of}: ${grant.actions.map((one) => one.toLowerCase()).join(', ') || 'nothing'}`]
  if (grant.where) words.push(`where ${grant.where}`)
  if (grant.hidden?.length) words.push(`without ${grant.hidden.join(', ')}`)
  if (grant.readOnly?.length) words.push(`not changing ${grant.readOnly.join(', ')}`)
  return words.join(', ')
}
