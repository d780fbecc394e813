import createClient from 'openapi-fetch'
import { ApiProblem, forgeryToken, noteStatus, type Problem } from './http'
import { PLACE } from './place'
import type { components, paths } from './manage'

export type Schemas = components['schemas']
export type Status = Schemas['Status']
export type Model = Schemas['ModelView']
export type ObjectView = Schemas['ObjectView']
export type PartView = Schemas['PartView']
export type RouteView = Schemas['RouteView']
export type FieldView = Schemas['FieldView']
export type Draft = Schemas['Draft']
export type DraftFile = Schemas['DraftFile']
export type Diagnostic = Schemas['Diagnostic']
export type ReleaseView = Schemas['ReleaseView']
export type ReleasePreview = Schemas['ReleasePreview']
export type ServiceView = Schemas['ServiceView']
export type ResourceView = Schemas['ResourceView']
export type ObjectFunctionView = Schemas['ObjectFunctionView']
export type ParameterView = Schemas['ParameterView']
export type Requirements = Schemas['Requirements']
export type RequirementView = Schemas['RequirementView']
export type DeliveryView = Schemas['DeliveryView']
export type RaisedEventView = Schemas['RaisedEventView']
export type RunView = Schemas['RunView']
export type WebhookView = Schemas['WebhookView']
export type FunctionTried = Schemas['FunctionTried']
export type CallResults = Schemas['CallResults']
export type ClientView = Schemas['ClientView']
export type RoleView = Schemas['RoleView']
export type Me = Schemas['Me']

/** The manage API; its types are generated from the service's own OpenAPI document. */
export const api = createClient<paths>({
  baseUrl: typeof location === 'undefined' ? '' : location.origin + PLACE,
  headers: { Accept: 'application/json' },
})

api.use({
  onRequest({ request }) {
    request.headers.set('X-XSRF-TOKEN', forgeryToken())
    return request
  },
  onResponse({ request, response }) {
    noteStatus(response.status, new URL(request.url).pathname)
  },
})

interface Answer<T> {
  data?: T
  error?: unknown
  response: Response
}

/** The body of a good answer; a bad one is thrown as its problem. */
export async function unwrap<T>(answer: Promise<Answer<T>>): Promise<T> {
  let settled: Answer<T>
  try {
    settled = await answer
  } catch {
    throw new ApiProblem({ title: '', status: 0, detail: 'The service does not answer. Is it running?' })
  }
  if (!settled.response.ok) {
    const problem = settled.error as Partial<Problem> | undefined
    throw new ApiProblem({
      title: problem?.title ?? '',
      status: settled.response.status,
      detail: problem?.detail ?? `The service answered ${settled.response.status}.`,
      errors: problem?.errors,
    })
  }
  return settled.data as T
}
