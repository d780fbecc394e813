import { isMap, Pair, Scalar, YAMLMap } from 'yaml'
import { readSpoken, spokenWith, type Spoken } from './labels'
import { flow, nameOf, optional, read, write } from './yamlFile'

/** What is said of the object as a whole. */
export interface ObjectFacts {
  labels: Spoken
  plurals: Spoken
  describe?: string
  removal: string
  numberingField?: string
  numberingPattern?: string
}

export function readFacts(text: string, main = 'en'): ObjectFacts {
  const document = read(text)
  const removal = document.get('removal')
  return {
    labels: readSpoken(document.get('label'), main),
    plurals: readSpoken(document.get('plural'), main),
    describe: optional(document.get('describe')),
    removal: isMap(removal) ? `retire ${String(removal.get('retire'))}` : (optional(removal) ?? 'retire'),
    numberingField: optional(document.getIn(['numbering', 'field'])),
    numberingPattern: optional(document.getIn(['numbering', 'pattern'])),
  }
}

/** Sets, or takes away, something said of the object as a whole; it stands before the fields. */
export function setFact(
  text: string,
  key: Exclude<keyof ObjectFacts, 'labels' | 'plurals'>,
  value: string | undefined,
): string {
  const document = read(text)
  const at = document.contents
  if (!isMap(at)) return text
  if (key === 'numberingField' || key === 'numberingPattern') {
    const facts = readFacts(text)
    const field = key === 'numberingField' ? value : facts.numberingField
    const pattern = key === 'numberingPattern' ? value : facts.numberingPattern
    const gapless = document.getIn(['numbering', 'gapless'])
    const numbering = { field, pattern: pattern || 'N-{sequence:6}' }
    if (field)
      place(at, 'numbering', flow(document, gapless === undefined ? numbering : { ...numbering, gapless }))
    else document.delete('numbering')
  } else if (!value || (key === 'removal' && value === 'retire')) document.delete(key)
  else if (key === 'removal' && value.startsWith('retire '))
    place(at, key, flow(document, { retire: value.slice('retire '.length) }))
  else place(at, key, document.createNode(value))
  return write(document)
}

/** Sets what the object, or several of it, are called in one language; it stands before the fields. */
export function setObjectLabel(
  text: string,
  key: 'label' | 'plural',
  language: string,
  label: string,
  main: string,
): string {
  const document = read(text)
  const at = document.contents
  if (!isMap(at)) return text
  const node = spokenWith(document, document.get(key), language, label, main)
  if (node === undefined) document.delete(key)
  else place(at, key, node)
  return write(document)
}

/** Sets an entry; a new one comes before the fields. */
function place(map: YAMLMap, key: string, node: unknown) {
  if (map.has(key)) {
    map.set(key, node)
    return
  }
  const before = map.items.findIndex((one) => ['fields', 'parts'].includes(nameOf(one)))
  map.items.splice(before < 0 ? map.items.length : before, 0, new Pair(new Scalar(key), node) as never)
}
