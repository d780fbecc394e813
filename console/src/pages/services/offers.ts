import type { ResourceView, ServiceView } from '@/api/client'

/** What can be called; a transition or function is called at an address below the record's. */
export interface Offer {
  value: string
  label: string
  method: string
  keyed: boolean
  body: boolean
  below?: string
  /** Arguments to begin with, for what is called. */
  example?: Record<string, unknown>
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
  const calls = resource.calls.map((one) => ({
    value: `call ${one.address}`,
    label: one.label,
    method: 'POST',
    keyed: true,
    body: Object.keys(one.example).length > 0,
    below: `/${one.address}`,
    example: one.example,
  }))
  return [...OPERATIONS.filter((one) => one.value in resource.operations), ...calls]
}

/** What of a service is called on no record. */
export function functionsOf(service: ServiceView): Offer[] {
  return service.functions.map(({ call }) => ({
    value: `call ${call.address}`,
    label: call.label,
    method: 'POST',
    keyed: false,
    body: true,
    example: call.example,
  }))
}
