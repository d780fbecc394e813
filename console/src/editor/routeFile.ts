import { isMap, isScalar, isSeq } from 'yaml'
import { append, flow, optional, put, read, write } from './yamlFile'

/** A step as the file says it: records of one object are made from those of another. */
export interface RouteStep {
  from: string
  to: string
  /** The references that lead from there to the source, with points between; none for line items of its own. */
  through?: string
}

/** A route as its file says it. */
export interface RouteFile {
  name: string
  label?: string
  describe?: string
  steps: RouteStep[]
  services: string[]
}

/** As much of an object as is needed to find the way to another. */
export interface RoutedObject {
  name: string
  fields: { name: string; to?: string | null }[]
  parts: { name: string; fields: { name: string; to?: string | null }[] }[]
}

/** The route in a file, or undefined when the text is no route or cannot be read just now. */
export function readRoute(text: string): RouteFile | undefined {
  const document = read(text)
  const name = document.get('route')
  if (document.errors.length || typeof name !== 'string') return undefined
  const steps = document.get('steps')
  const services = document.get('services')
  return {
    name,
    label: optional(document.get('label')),
    describe: optional(document.get('describe')),
    steps: isSeq(steps)
      ? steps.items.map((one) => ({
          from: isMap(one) ? (optional(one.get('from')) ?? '') : '',
          to: isMap(one) ? (optional(one.get('to')) ?? '') : '',
          through: isMap(one) ? optional(one.get('through')) : undefined,
        }))
      : [],
    services: isSeq(services) ? services.items.map((one) => (isScalar(one) ? String(one.value) : '')) : [],
  }
}

/** Sets or, with nothing, takes away what the route is called or is for. */
export function setOnRoute(text: string, key: 'label' | 'describe', value: string): string {
  const document = read(text)
  if (value) put(document, [key], value)
  else document.delete(key)
  return write(document)
}

/** Names the services that show what travels. */
export function setServices(text: string, services: string[]): string {
  const document = read(text)
  if (services.length) put(document, ['services'], document.createNode(services, { flow: true }))
  else document.delete('services')
  return write(document)
}

/** Adds a step behind the others. */
export function addStep(text: string, step: RouteStep): string {
  const document = read(text)
  append(document, ['steps'], flow(document, said(step)))
  return write(document)
}

/** Puts another step in the place of one. */
export function setStep(text: string, at: number, step: RouteStep): string {
  const document = read(text)
  put(document, ['steps', at], flow(document, said(step)))
  return write(document)
}

/** Takes a step away. */
export function removeStep(text: string, at: number): string {
  const document = read(text)
  document.deleteIn(['steps', at])
  return write(document)
}

function said(step: RouteStep): Record<string, string> {
  const { from, to, through } = step
  return through ? { from, to, through } : { from, to }
}

const DEEPEST = 3

/** The references that lead from records, or line items, of one kind to those of an object; the shortest first. */
export function waysTo(objects: RoutedObject[], to: string, from: string): string[] {
  const [name, partName] = to.split('.')
  const object = objects.find((one) => one.name === name)
  const fields = partName ? object?.parts.find((one) => one.name === partName)?.fields : object?.fields
  const found: string[] = []
  let ends = (fields ?? []).map((field) => ({ path: field.name, at: field.to }))
  for (let depth = 1; depth <= DEEPEST; depth++) {
    const further: typeof ends = []
    for (const { path, at } of ends) {
      if (!at) continue
      if (at === from) found.push(path)
      for (const field of objects.find((one) => one.name === at)?.fields ?? [])
        further.push({ path: `${path}.${field.name}`, at: field.to })
    }
    ends = further
  }
  return found
}

/** What a step may lead to: every object, and the line items of each. */
export function targets(objects: RoutedObject[]): string[] {
  return objects.flatMap((object) => [
    object.name,
    ...object.parts.map((part) => `${object.name}.${part.name}`),
  ])
}
