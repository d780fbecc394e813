import { isMap, isScalar, Pair, Scalar } from 'yaml'
import { readSpoken, type Spoken } from './labels'
import { flow, nameOf, put, read, write } from './yamlFile'

/** The names of the parts. */
export function partNames(text: string): string[] {
  const parts = read(text).get('parts')
  return isMap(parts) ? parts.items.map((pair) => nameOf(pair)) : []
}

/** Adds line items with a field to begin with, under a name that is free. */
export function addPart(text: string): { text: string; name: string } {
  const document = read(text)
  const taken = partNames(text)
  let name = 'lines'
  for (let count = 2; taken.includes(name); count++) name = `lines${count}`
  put(document, ['parts', name, 'fields', 'description'], flow(document, { type: 'text', length: 200 }))
  return { text: write(document), name }
}

/** Gives line items another name; those that are released already keep their values by `was`. */
export function renamePart(text: string, from: string, to: string, released: string[]): string {
  const document = read(text)
  const parts = document.get('parts')
  if (!isMap(parts) || from === to || !to || parts.has(to)) return text
  const pair = parts.items.find((one) => nameOf(one) === from) as Pair | undefined
  if (!pair) return text
  if (isScalar(pair.key)) (pair.key as Scalar).value = to
  if (isMap(pair.value)) {
    const was = pair.value.get('was')
    if (was === to) pair.value.delete('was')
    else if (was === undefined && released.includes(from))
      pair.value.items.unshift(new Pair(new Scalar('was'), new Scalar(from)) as never)
  }
  return write(document)
}

/** Takes line items away with all their fields. */
export function removePart(text: string, name: string): string {
  const document = read(text)
  document.deleteIn(['parts', name])
  const parts = document.get('parts')
  if (isMap(parts) && parts.items.length === 0) document.delete('parts')
  return write(document)
}

/** What line items are called, by language. */
export function partLabels(text: string, name: string, main: string): Spoken {
  return readSpoken(read(text).getIn(['parts', name, 'label']), main)
}
