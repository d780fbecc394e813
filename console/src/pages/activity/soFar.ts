import type { Step } from '@/api/logic'

/** What a record, or what there is beside records, has come to at a step. */
export interface Standing {
  of: string
  values: { name: string; value: string }[]
}

const GIVEN = 'What was given'
const LOCAL = 'Local values'
const FIELD = /^(.+): ([\w.[\] ]+)$/

/** The values that are known after a number of steps: each record with the last of each of its fields. */
export function standingAfter(steps: Step[], count: number): Standing[] {
  const all = new Map<string, Map<string, string>>()
  const set = (of: string, name: string, value: string) => {
    if (!all.has(of)) all.set(of, new Map())
    all.get(of)!.set(name, value)
  }
  // A transition belongs to the record whose function, or which itself, was asked for.
  let subject = ''
  for (const step of steps.slice(0, count)) {
    const field = FIELD.exec(step.title)
    const after = step.result.split(' → ').at(-1) ?? ''
    if (step.kind === 'REQUEST') subject = step.title.split(' ').slice(1).join(' ')
    else if (step.kind === 'CALL' && field) subject = field[1]
    else if (step.kind === 'INPUT') set(GIVEN, step.title, step.result)
    else if (step.kind === 'LOCAL') set(LOCAL, step.title, step.result)
    else if (step.kind === 'TRANSITION') set(subject, 'state', after)
    else if (step.kind === 'CREATE') set(step.title, 'made with', step.result)
    else if (step.kind === 'RETIRE') set(step.title, 'retired', 'true')
    else if (step.kind === 'FORMULA' && field) set(field[1], field[2], after)
    else if (step.kind === 'SET') {
      if (field) set(field[1], field[2], step.result)
      else set(step.title, 'changed to', step.result)
    }
  }
  return [...all].map(([of, values]) => ({
    of,
    values: [...values].map(([name, value]) => ({ name, value })),
  }))
}
