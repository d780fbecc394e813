import type { FreshField } from './objectFile'

const TYPES: [RegExp, string][] = [
  [/^(text|string|varchar|char|note|memo)/, 'text'],
  [/^(int|integer|whole|count)/, 'integer'],
  [/^(amount|money|price|currency)/, 'amount'],
  [/^(percent|rate|%)/, 'percent'],
  [/^(decimal|number|numeric|float|double)/, 'decimal'],
  [/^(bool|boolean|yes|flag|checkbox)/, 'boolean'],
  [/^(date-time|datetime|timestamp|moment)/, 'date-time'],
  [/^date/, 'date'],
  [/^time/, 'time'],
  [/^duration/, 'duration'],
  [/^(choice|list|enum|option)/, 'choice'],
  [/^(reference|lookup|link|ref)/, 'reference'],
  [/^(e-?mail)/, 'email'],
  [/^(phone|tel)/, 'phone'],
  [/^(web-address|url|link address)/, 'web-address'],
  [/^(uuid|guid)/, 'uuid'],
  [/^(file|attachment|image|photo|picture|document|scan)/, 'file'],
]
const MOST = 200

/**
 * Fields out of what somebody copied: a line each, with the name or label first and, behind a tab or
 * semicolon, the type in whatever word. Lines that say nothing are left out.
 */
export function fieldsOf(pasted: string): FreshField[] {
  return pasted
    .split(/\r?\n/)
    .map((line) => line.split(/\t|;/).map((cell) => cell.trim()))
    .filter(([first]) => first && /[\p{L}]/u.test(first))
    .slice(0, MOST)
    .map(([first, second = '']) => {
      const isName = /^[a-z][A-Za-z0-9]*$/.test(first)
      const name = isName ? first : nameFor(first)
      const length = Number(/\((\d+)\)/.exec(second)?.[1])
      return {
        name,
        ...(isName || spoken(name) === first ? {} : { label: first.slice(0, 80) }),
        type: typeOf(second),
        ...(length > 0 && typeOf(second) === 'text' ? { length } : {}),
      }
    })
}

function typeOf(word: string): string {
  return TYPES.find(([sign]) => sign.test(word.toLowerCase()))?.[1] ?? 'text'
}

/** A name for a label: "Date of arrival" becomes dateOfArrival. */
export function nameFor(label: string): string {
  const words = label
    .normalize('NFD')
    .replace(/\p{M}/gu, '')
    .replace(/ß/g, 'ss')
    .split(/[^A-Za-z0-9]+/)
    .filter(Boolean)
  const name = words
    .map((word, at) =>
      at === 0 ? word.charAt(0).toLowerCase() + word.slice(1) : word.charAt(0).toUpperCase() + word.slice(1),
    )
    .join('')
    .replace(/^[0-9]+/, '')
    .slice(0, 60)
  return /^[a-z]/.test(name) ? name : `field${name}`
}

/** The label a field has by its name alone. */
export function spoken(name: string): string {
  const words = name.replace(/([A-Z])/g, ' $1').toLowerCase()
  return words.charAt(0).toUpperCase() + words.slice(1)
}
