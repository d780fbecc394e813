import type { CallResults, FunctionTried } from './client'
import { call } from './http'
import type { Plain, Values } from './records'

/** What a call came to; the result is absent for a function that gives nothing back. */
export interface Called {
  returns: boolean
  result: Plain
  warnings: string[]
}

const at = (base: string, object: string, name: string) =>
  `/manage/v1/${base}/${encodeURIComponent(object)}/${encodeURIComponent(name)}`

/** Calls a function on a record, or without a key on the object as a whole. */
export const callFunction = (object: string, name: string, key: string | undefined, args: Values) =>
  call<Called>('POST', at('functions', object, name), { key, arguments: args })

/** Calls it on each of many records; one that is refused holds nobody up. */
export const callOnEach = (object: string, name: string, keys: string[], args: Values) =>
  call<CallResults>('POST', `${at('functions', object, name)}/each`, { keys, arguments: args })

/** Tries the draft's function on a record there is; nothing is kept. */
export const tryFunction = (object: string, name: string, key: string | undefined, args: Values) =>
  call<FunctionTried>('POST', at('trial/functions', object, name), { key, arguments: args })
