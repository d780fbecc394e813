import type { FieldView, ObjectView } from '@/api/client'

/** A step that can be put together and inserted: its form, and the text it makes. */
export interface StepForm {
  kind: string
  title: string
  hint: string
  inputs: StepInput[]
  text: (values: Record<string, string>) => string
}

export interface StepInput {
  name: string
  label: string
  kind: 'expression' | 'field' | 'object' | 'record' | 'message' | 'name' | 'step' | 'event' | 'function'
  required: boolean
  hint?: string
}

const input = (
  name: string,
  label: string,
  kind: StepInput['kind'],
  required = true,
  hint?: string,
): StepInput => ({ name, label, kind, required, hint })

/** Text in quotes, with what stands in quotes already left alone. */
export const quoted = (text: string) =>
  /^".*"$/s.test(text.trim()) ? text.trim() : `"${text.replaceAll('\\', '\\\\').replaceAll('"', '\\"')}"`

const as = (name: string | undefined) => (name?.trim() ? ` as ${name.trim()}` : '')
const at = (field: string | undefined) => (field?.trim() ? ` at ${field.trim()}` : '')

/** Values with commas between them, as they are entered line by line. */
function valuesOf(text: string | undefined): string {
  const lines = (text ?? '')
    .split('\n')
    .map((line) => line.trim().replace(/,$/, ''))
    .filter(Boolean)
  return lines.length ? `{ ${lines.join(', ')} }` : '{ }'
}

export const STEPS: StepForm[] = [
  {
    kind: 'set',
    title: 'Set a field',
    hint: 'Gives a field of the record a value.',
    inputs: [
      input('field', 'Field', 'field'),
      input('value', 'Value', 'expression', true, 'quantity * price'),
    ],
    text: (v) => `set ${v.field} = ${v.value}`,
  },
  {
    kind: 'create',
    title: 'Create a record',
    hint: 'Makes a record of another object.',
    inputs: [
      input('object', 'Object', 'object'),
      input('values', 'Values, a line each', 'record', true, 'customer: customer'),
      input('as', 'Called, for what comes after', 'name', false),
    ],
    text: (v) => `create ${v.object} ${valuesOf(v.values)}${as(v.as)}`,
  },
  {
    kind: 'update',
    title: 'Change another record',
    hint: 'Changes a record that is reached from here.',
    inputs: [
      input('record', 'Record', 'expression', true, 'customer'),
      input('values', 'Values, a line each', 'record', true, 'open: false'),
    ],
    text: (v) => `update ${v.record} ${valuesOf(v.values)}`,
  },
  {
    kind: 'transition',
    title: 'Take a step of the lifecycle',
    hint: 'Brings the record, or another one, to another state.',
    inputs: [input('step', 'Step', 'step'), input('of', 'Of another record', 'expression', false, 'invoice')],
    text: (v) => `transition ${v.step}${v.of?.trim() ? ` of ${v.of.trim()}` : ''}`,
  },
  {
    kind: 'require',
    title: 'Refuse unless something holds',
    hint: 'Stops everything with a message.',
    inputs: [
      input('condition', 'What must hold', 'expression', true, 'quantity > 0'),
      input('message', 'Otherwise say', 'message'),
      input('at', 'At field', 'field', false),
    ],
    text: (v) => `require ${v.condition} else reject ${quoted(v.message)}${at(v.at)}`,
  },
  {
    kind: 'warn',
    title: 'Warn',
    hint: 'Says something and goes on.',
    inputs: [input('message', 'Say', 'message'), input('at', 'At field', 'field', false)],
    text: (v) => `warn ${quoted(v.message)}${at(v.at)}`,
  },
  {
    kind: 'if',
    title: 'Only when something holds',
    hint: 'Steps that are done only then.',
    inputs: [
      input('condition', 'When', 'expression', true, 'state = "Open"'),
      input('then', 'Then', 'record', true, 'set open = false'),
    ],
    text: (v) => `if ${v.condition} then\n${indented(v.then)}\nend`,
  },
  {
    kind: 'each',
    title: 'For each of several',
    hint: 'Does steps with each line item or record.',
    inputs: [
      input('name', 'Each is called', 'name'),
      input('list', 'In', 'expression', true, 'lines'),
      input('steps', 'Steps', 'record', true, 'set line.net = 0'),
    ],
    text: (v) => `for each ${v.name} in ${v.list}\n${indented(v.steps)}\nend`,
  },
  {
    kind: 'call',
    title: 'Call a function',
    hint: 'Runs a function of this object or another.',
    inputs: [
      input('function', 'Function', 'function'),
      input('with', 'Arguments', 'expression', false, 'quantity: 7'),
      input('as', 'What it gives back is called', 'name', false),
    ],
    text: (v) => `call ${v.function}(${v.with?.trim() ?? ''})${as(v.as)}`,
  },
  {
    kind: 'emit',
    title: 'Raise an event',
    hint: 'Tells others that something has happened.',
    inputs: [
      input('event', 'Event', 'event'),
      input('values', 'What it tells, a line each', 'record', false, 'order: number'),
    ],
    text: (v) => `emit ${v.event} ${valuesOf(v.values)}`,
  },
  {
    kind: 'let',
    title: 'Name a value',
    hint: 'Works something out for the steps that follow.',
    inputs: [input('name', 'Name', 'name'), input('value', 'Value', 'expression')],
    text: (v) => `let ${v.name} = ${v.value}`,
  },
  {
    kind: 'retire',
    title: 'Retire a record',
    hint: 'Takes a record out of use.',
    inputs: [input('record', 'Record', 'expression', true, 'this')],
    text: (v) => `retire ${v.record}`,
  },
]

const indented = (text: string | undefined) =>
  (text ?? '')
    .split('\n')
    .filter((line) => line.trim())
    .map((line) => `  ${line}`)
    .join('\n')

/** Whether all that a step needs is there. */
export const isStepFilled = (form: StepForm, values: Record<string, string>) =>
  form.inputs.every((one) => !one.required || values[one.name]?.trim())

/** What is offered for an input; empty when anything can be written. */
export function stepOptions(
  kind: StepInput['kind'],
  object: ObjectView | undefined,
  objects: ObjectView[],
  events: string[],
): { value: string; label: string }[] {
  const named = (fields: FieldView[]) => fields.map((one) => ({ value: one.name, label: one.label }))
  switch (kind) {
    case 'field':
      return named(object?.fields ?? [])
    case 'object':
      return [
        ...(object?.parts ?? []).map((one) => ({ value: one.name, label: `${one.label} (line item)` })),
        ...objects.map((one) => ({ value: one.name, label: one.label })),
      ]
    case 'step':
      return (object?.lifecycle?.transitions ?? []).map((one) => ({ value: one.name, label: one.label }))
    case 'event':
      return events.map((value) => ({ value, label: value }))
    case 'function':
      return [
        ...(object?.functions ?? []).map((one) => ({ value: one.name, label: one.label })),
        ...objects.flatMap((one) =>
          one.functions
            .filter((called) => !called.onRecord && one.name !== object?.name)
            .map((called) => ({
              value: `${one.name}.${called.name}`,
              label: `${called.label} (${one.label})`,
            })),
        ),
      ]
    default:
      return []
  }
}
