import type { ResourceView } from '@/api/client'

/** What can be called; a transition is called at an address below the record's. */
export interface Offer {
  value: string
  label: string
  method: string
  keyed: boolean
  body: boolean
  below?: string
}

const OPERATIONS: Offer[] = [
  { value: 'query', label: 'Find', method: 'GET', keyed: false, body: false },
  { value: 'read', label: 'Read', method: 'GET', keyed: true, body: false },
  { value: 'create', label: 'Create', method: 'POST', keyed: false, body: true },
  { value: 'update', label: 'Change', method: 'PATCH', keyed: true, body: true },
  { value: 'remove', label: 'Remove', method: 'DELETE', keyed: true, body: false },
]

/** What of a resource can be called over REST. */
export function offersOf(resource: ResourceView | undefined): Offer[] {
  if (!resource) return []
  const transitions = resource.transitions.map((one) => ({
    value: `transition ${one.address}`,
    label: one.label,
    method: 'POST',
    keyed: true,
    body: false,
    below: `/${one.address}`,
  }))
  return [...OPERATIONS.filter((one) => one.value in resource.operations), ...transitions]
}
