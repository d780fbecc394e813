import type { FieldView } from '@/api/client'
import type { Plain } from '@/api/records'

/** The language of whoever looks, as the browser has it; inputs of dates follow it, too. */
export const PERSON = typeof navigator === 'undefined' ? 'en-US' : navigator.language || 'en-US'

/** A value as people read it in a list. */
export function shown(field: FieldView, value: Plain | undefined, language = PERSON): string {
  if (value === null || value === undefined || value === '') return ''
  if (field.type === 'boolean') return value ? 'Yes' : 'No'
  if (field.type === 'choice')
    return field.choices?.find((choice) => choice.code === value)?.label ?? String(value)
  if (typeof value === 'number') return number(field, value, language)
  if (typeof value === 'object' && !Array.isArray(value)) {
    if ('currency' in value) return `${number(field, Number(value.value), language)} ${value.currency}`
    if (field.type === 'file') return String(value.name)
    const first = field.languages?.find((one) => value[one])
    return first ? String(value[first]) : ''
  }
  if (field.type === 'date-time') return moment(String(value), language)
  if (field.type === 'date') return day(String(value), language)
  return String(value)
}

function number(field: FieldView, value: number, language: string): string {
  const places = field.scale ?? 0
  const text = new Intl.NumberFormat(language, {
    minimumFractionDigits: places,
    maximumFractionDigits: places,
  }).format(value)
  return field.type === 'percent' ? `${text} %` : text
}

/** Whether values are read from the right. */
export function isNumeric(field: FieldView): boolean {
  return ['integer', 'decimal', 'percent', 'amount'].includes(field.type)
}

const DAY = { year: 'numeric', month: '2-digit', day: '2-digit' } as const
const TIME = { hour: '2-digit', minute: '2-digit' } as const

/** A whole number, such as a count of records. */
export const count = (value: number, language = PERSON) => new Intl.NumberFormat(language).format(value)

/** What stands before the decimal places of a number. */
export const decimalSign = (language = PERSON) =>
  new Intl.NumberFormat(language).formatToParts(0.5).find((part) => part.type === 'decimal')?.value ?? '.'

/** A date of the form 2026-05-01, written as inputs of dates write it; anything else as it is. */
export function day(iso: string, language = PERSON): string {
  const match = /^(\d{4})-(\d{2})-(\d{2})$/.exec(iso)
  if (!match) return iso
  const date = new Date(Date.UTC(Number(match[1]), Number(match[2]) - 1, Number(match[3])))
  return new Intl.DateTimeFormat(language, { ...DAY, timeZone: 'UTC' }).format(date)
}

/** A moment in the reader's own time and writing. */
export function moment(iso: string, language = PERSON): string {
  const date = new Date(iso)
  if (Number.isNaN(date.getTime())) return iso
  return new Intl.DateTimeFormat(language, { ...DAY, ...TIME }).format(date)
}

/** How long ago a moment was, in words. */
export function ago(iso: string, now: Date = new Date()): string {
  const seconds = Math.round((now.getTime() - new Date(iso).getTime()) / 1000)
  if (seconds < 60) return 'just now'
  const minutes = Math.round(seconds / 60)
  if (minutes < 60) return `${minutes} min ago`
  const hours = Math.round(minutes / 60)
  return hours < 24 ? `${hours} h ago` : new Intl.DateTimeFormat(PERSON, DAY).format(new Date(iso))
}
