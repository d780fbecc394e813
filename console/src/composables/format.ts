import type { FieldView } from '@/api/client'
import type { Plain } from '@/api/records'

/** A value as people read it in a list. */
export function shown(field: FieldView, value: Plain | undefined, language = 'en'): string {
  if (value === null || value === undefined || value === '') return ''
  if (field.type === 'boolean') return value ? 'Yes' : 'No'
  if (field.type === 'choice')
    return field.choices?.find((choice) => choice.code === value)?.label ?? String(value)
  if (typeof value === 'number') return number(field, value, language)
  if (typeof value === 'object' && !Array.isArray(value)) {
    if ('currency' in value) return `${number(field, Number(value.value), language)} ${value.currency}`
    const first = field.languages?.find((one) => value[one])
    return first ? String(value[first]) : ''
  }
  if (field.type === 'date-time') return moment(String(value))
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

/** A moment in the reader's own time: 2026-05-01 14:30. */
export function moment(iso: string): string {
  const date = new Date(iso)
  if (Number.isNaN(date.getTime())) return iso
  const two = (count: number) => String(count).padStart(2, '0')
  return `${date.getFullYear()}-${two(date.getMonth() + 1)}-${two(date.getDate())} ${two(date.getHours())}:${two(date.getMinutes())}`
}

/** How long ago a moment was, in words. */
export function ago(iso: string, now: Date = new Date()): string {
  const seconds = Math.round((now.getTime() - new Date(iso).getTime()) / 1000)
  if (seconds < 60) return 'just now'
  const minutes = Math.round(seconds / 60)
  if (minutes < 60) return `${minutes} min ago`
  const hours = Math.round(minutes / 60)
  return hours < 24 ? `${hours} h ago` : moment(iso).slice(0, 10)
}
