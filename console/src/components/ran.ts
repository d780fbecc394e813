import type { Step } from '@/api/logic'

interface Named {
  name: string
  label: string
}

const OF_RECORD = /^(.+) \S+: (\w+)(?: \(on .*\))?$/
const OF_OBJECT = /^(\w+)\.(\w+)$/

/** The place in the model of what a step ran: a function, rule, handler or check by its name. */
export function placeOfStep(step: Step, objects: Named[]): { object: string; name: string } | undefined {
  if (!['CALL', 'RULE', 'CHECK'].includes(step.kind)) return undefined
  const found = OF_RECORD.exec(step.title) ?? OF_OBJECT.exec(step.title)
  if (!found) return undefined
  const object = objects.find((one) => one.label === found[1] || one.name === found[1])
  return object && { object: object.name, name: found[2] }
}
