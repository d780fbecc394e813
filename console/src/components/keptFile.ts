import type { FieldView } from '@/api/client'
import { at } from '@/api/place'
import type { Plain, Values } from '@/api/records'

/** A file of a record; its content is there only on its way to the service. */
export interface KeptFile {
  name: string
  type?: string
  size: number
  sha256?: string
  content?: string
}

/** Stands for a digest that is not worked out here; a file with it is never kept. */
const UNKNOWN_DIGEST = '0'.repeat(64)

export const fileIn = (value: Plain | undefined): KeptFile | undefined =>
  value && typeof value === 'object' && !Array.isArray(value) && 'name' in value && 'size' in value
    ? (value as unknown as KeptFile)
    : undefined

/** Where a stored file is downloaded; `place` is the field, for a line item the part, line and field. */
export const fileAddress = (object: string, id: string, ...place: (string | number)[]) =>
  at(
    `/manage/v1/records/${encodeURIComponent(object)}/${id}/files/${place.map((one) => encodeURIComponent(one)).join('/')}`,
  )

const UNITS = ['bytes', 'kB', 'MB', 'GB']

/** A number of bytes as people say it: 18 kB. */
export function bytes(size: number): string {
  let unit = 0
  let amount = size
  while (amount >= 1000 && unit < UNITS.length - 1) {
    amount /= 1000
    unit++
  }
  const text = new Intl.NumberFormat('en', { maximumFractionDigits: unit && amount < 10 ? 1 : 0 }).format(
    amount,
  )
  return `${text} ${UNITS[unit]}`
}

/** What a field takes, in words. */
export function taken(field: FieldView): string {
  const types = (field.accepts ?? []).map((one) => one.replace(/^.*\/(?=[^*])/, '').replace('/*', 's'))
  const upTo = field.largest ? `up to ${bytes(field.largest)}` : ''
  return [types.join(', '), upTo].filter(Boolean).join(', ')
}

/** Why a file cannot be taken, or undefined when it can; the service looks at what is in it. */
export function refusal(field: FieldView, file: File): string | undefined {
  if (!file.size) return `${file.name} is empty.`
  if (field.largest && file.size > field.largest)
    return `${file.name} has ${bytes(file.size)}; at most ${bytes(field.largest)} are taken.`
  return undefined
}

/** Reads a chosen file to the form in which it is sent. */
export async function readFile(file: File): Promise<KeptFile> {
  const all = new Uint8Array(await file.arrayBuffer())
  let binary = ''
  for (let from = 0; from < all.length; from += 0x8000)
    binary += String.fromCharCode(...all.subarray(from, from + 0x8000))
  return {
    name: file.name,
    ...(file.type && { type: file.type }),
    size: file.size,
    content: btoa(binary),
  }
}

/** Values without what is in files: enough to work a form out, which happens at every key that is pressed. */
export function withoutContent(values: Values): Values {
  return Object.fromEntries(
    Object.entries(values)
      .filter(([, value]) => fileIn(value)?.content === undefined || fileIn(value)?.type !== undefined)
      .map(([name, value]) => [name, light(value)]),
  )
}

function light(value: Plain): Plain {
  if (Array.isArray(value))
    return value.map((item) =>
      item && typeof item === 'object' && !Array.isArray(item) ? withoutContent(item) : item,
    )
  const file = fileIn(value)
  return file?.content === undefined
    ? value
    : { name: file.name, type: file.type!, size: file.size, sha256: UNKNOWN_DIGEST }
}
