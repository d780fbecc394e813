import { call } from './http'
import type { RecordView, Values } from './records'

export type Role =
  | 'EXPRESSION'
  | 'FORMULA'
  | 'CONDITION'
  | 'OFFER'
  | 'CHECK'
  | 'WHEN'
  | 'THEN'
  | 'SAY'
  | 'BODY'
  | 'HANDLER_WHEN'
  | 'HANDLER_THEN'
  | 'SCHEDULE_WHERE'
  | 'SCHEDULE_THEN'

/** A logic text with what it is written about. */
export interface LogicText {
  role: Role
  object?: string
  part?: string
  /** The reference whose offer it is, or the function, handler or schedule it belongs to. */
  field?: string
  text: string
}

/** One thing wrong with a text; places in code points from 0. */
export interface Finding {
  start: number
  end: number
  code: string
  message: string
  suggestion?: string | null
  warning: boolean
}

export interface Item {
  label: string
  insert: string
  kind: 'field' | 'function' | 'object' | 'name' | 'code' | 'step' | 'word'
  detail: string
  describe: string
}

export interface FunctionView {
  name: string
  chapter: string
  forms: string[]
  describe: string
  examples: { expression: string; result: string }[]
}

export interface Step {
  depth: number
  kind: string
  title: string
  detail: string
  result: string
  micros: number
}

export interface Trace {
  id: string
  at: string
  by: string
  via: string
  what: string
  outcome: string
  steps: Step[]
}

/** A fault or warning; the path as in `charges.0.tariff`. */
export interface Wrong {
  path: string
  code: string
  message: string
}

export interface Flags {
  required: boolean
  readOnly: boolean
  hidden: boolean
}

/** What an unsaved record would be. */
export interface Preview {
  values: Values
  fields: Record<string, Flags>
  faults: Wrong[]
  warnings: Wrong[]
}

export interface Tried {
  value?: string | null
  kind?: string | null
  findings: Finding[]
  notes: string[]
  faults: Wrong[]
  record?: Preview | null
  steps: Step[]
}

export interface TransitionState {
  name: string
  label: string
  to: string
  reasons: Wrong[]
}

const logic = '/manage/v1/logic'
const trials = '/manage/v1/trials'
const ofRecords = (object: string) => `${trials}/records/${encodeURIComponent(object)}`

export const checkLogic = (text: LogicText) => call<{ findings: Finding[] }>('POST', `${logic}/check`, text)

export const completeLogic = (text: LogicText, place: number) =>
  call<{ from: number; items: Item[] }>('POST', `${logic}/complete?place=${place}`, text)

export const hoverLogic = (text: LogicText, place: number) =>
  call<{ title?: string; describe?: string; example?: string }>('POST', `${logic}/hover?place=${place}`, text)

export const allFunctions = () => call<FunctionView[]>('GET', `${logic}/functions`)

export const tryLogic = (text: LogicText, key?: string, values: Values = {}) =>
  call<Tried>('POST', trials, { logic: text, key, values })

export const previewRecord = (object: string, key: string | undefined, values: Values) =>
  call<Preview>('POST', ofRecords(object), { key, values })

export const transitionsOf = (object: string, key: string) =>
  call<TransitionState[]>('GET', `${ofRecords(object)}/${encodeURIComponent(key)}/transitions`)

export const takeTransition = (object: string, key: string, name: string, version: number) =>
  call<RecordView>(
    'POST',
    `/manage/v1/records/${encodeURIComponent(object)}/${encodeURIComponent(key)}/transitions/${name}`,
    undefined,
    { 'If-Match': `"${version}"` },
  )

/** Where a reference is: in a record that is being edited, perhaps in one of its line items. */
export interface PickPlace {
  object: string
  field: string
  key?: string
  values: Values
  part?: string
  item?: number
}

export const offeredRecords = (place: PickPlace, search: string) =>
  call<{ records: RecordView[] }>(
    'POST',
    `${trials}/offers/${encodeURIComponent(place.object)}/${place.field}`,
    {
      key: place.key,
      values: place.values,
      part: place.part,
      item: place.item ?? 0,
      search,
    },
  )

export const latestTraces = () => call<Trace[]>('GET', '/manage/v1/traces?limit=100')
export const oneTrace = (id: string) => call<Trace>('GET', `/manage/v1/traces/${id}`)
