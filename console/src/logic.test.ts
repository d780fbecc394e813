import { describe, expect, it } from 'vitest'
import type { FieldView, ObjectView, ResourceView } from '@/api/client'
import { ApiProblem, forgeryToken } from '@/api/http'
import type { RecordView } from '@/api/records'
import { ago, shown } from '@/composables/format'
import { useLatest } from '@/composables/latest'
import { matching } from '@/composables/palette'
import { offsetOf } from '@/editor/place'
import { changes, newValues, shown as formShown } from '@/pages/data/form'
import { readList, writeList } from '@/pages/data/list'
import { grouped } from '@/pages/home/latest'
import { links, lines } from '@/pages/model/layout'
import { stateLayout } from '@/pages/model/stateLayout'
import { lineDifference } from './components/difference'
import { exampleAnswer, exampleBody, exampleQuery, type Contract } from '@/pages/services/contract'
import { asCurl } from '@/pages/services/curl'
import { fieldRows } from '@/pages/services/fields'

const field = (name: string, type: string, more: Partial<FieldView> = {}): FieldView => ({
  name,
  label: name,
  type,
  typeWords: type,
  accepts: [],
  required: false,
  unique: false,
  readOnly: false,
  multiline: false,
  languages: [],
  choices: [],
  onRead: false,
  offers: false,
  ...more,
})
const pier: ObjectView = {
  name: 'Pier',
  packageName: 'harbour',
  label: 'Pier',
  plural: 'Piers',
  key: ['code'],
  removal: 'retire',
  whenUsed: 'ASK',
  fields: [
    field('code', 'text'),
    field('open', 'boolean', { standard: 'true' }),
    field('depth', 'decimal', { scale: 1 }),
  ],
  parts: [],
  inverses: [],
  checks: [],
  rules: [],
  functions: [],
  handlers: [],
  schedules: [],
  layout: { sections: [], wide: [], details: {}, columns: [] },
  actions: ['VIEW', 'CREATE', 'EDIT', 'RETIRE'],
}
const berth: ObjectView = {
  ...pier,
  name: 'Berth',
  fields: [field('code', 'text'), field('pier', 'reference', { to: 'Pier', required: true })],
}
const stored = (values: RecordView['values']) => ({ values }) as RecordView

describe('values in a list', () => {
  it('are written for people', () => {
    expect(shown(field('vat', 'percent', { scale: 2 }), 19)).toBe('19.00 %')
    expect(shown(field('open', 'boolean'), false)).toBe('No')
    expect(
      shown(field('kind', 'choice', { choices: [{ code: 'sail', label: 'Sailing yacht' }] }), 'sail'),
    ).toBe('Sailing yacht')
    expect(shown(field('name', 'text', { languages: ['en', 'de'] }), { de: 'Nordsteg' })).toBe('Nordsteg')
    expect(shown(field('total', 'amount', { scale: 2 }), { value: 12.5, currency: 'USD' })).toBe('12.50 USD')
    expect(shown(field('total', 'amount', { scale: 2 }), null)).toBe('')
  })

  it('say how long ago something was', () => {
    const now = new Date('2026-05-01T12:00:00Z')
    expect(ago('2026-05-01T11:59:40Z', now)).toBe('just now')
    expect(ago('2026-05-01T11:15:00Z', now)).toBe('45 min ago')
    expect(ago('2026-05-01T09:00:00Z', now)).toBe('3 h ago')
  })
})

describe('a form', () => {
  it('begins with the defaults', () => {
    expect(newValues(pier)).toEqual({ code: null, open: true, depth: null })
  })

  it('sends of a stored record only what differs', () => {
    const before = stored({ code: 'N', open: true, depth: 2.5 })
    expect(changes(pier, before, { code: 'N', open: true, depth: null })).toEqual({ depth: null })
  })

  it('sends of a new record what is filled', () => {
    expect(changes(pier, undefined, { code: 'N', open: false, depth: null })).toEqual({
      code: 'N',
      open: false,
    })
  })
})

describe('the address of a list', () => {
  it('keeps what is set and leaves out the rest', () => {
    const list = readList({ filter: 'open', sort: ['a', 'b'], other: 'x' })
    expect(list).toEqual({ filter: 'open', search: undefined, sort: undefined, retired: undefined })
    expect(writeList(list)).toEqual({ filter: 'open' })
  })
})

describe('the newest answer', () => {
  it('stays although an older one comes later', async () => {
    const waiting: ((text: string) => void)[] = []
    const { data, run } = useLatest(() => new Promise<string>((resolve) => waiting.push(resolve)))
    const first = run('a')
    const second = run('b')
    waiting[1]('newer')
    waiting[0]('older')
    await Promise.all([first, second])
    expect(data.value).toBe('newer')
  })
})

describe('the palette', () => {
  it('finds by all words and puts what begins with them first', () => {
    const entries = [
      { kind: 'Field', label: 'Stay.vessel', to: '' },
      { kind: 'Data', label: 'Vessels', to: '' },
      { kind: 'Data', label: 'Stays', to: '' },
    ]
    expect(matching(entries, 'vessel').map((one) => one.label)).toEqual(['Vessels', 'Stay.vessel'])
    expect(matching(entries, 'field stay').map((one) => one.label)).toEqual(['Stay.vessel'])
  })
})

describe('places in a text', () => {
  it('count characters, not halves of them', () => {
    expect(offsetOf('a: 1\nb: ⛵x', 2, 5)).toBe('a: 1\nb: ⛵'.length)
    expect(offsetOf('one line', 9, 1)).toBe('one line'.length)
  })
})

describe('a comparison', () => {
  it('tells lines that came and went', () => {
    const kinds = lineDifference('a\nb\nc\n', 'a\nx\nc\n').map((line) => line.kind[0] + line.text)
    expect(kinds).toEqual(['sa', 'rb', 'ax', 'sc'])
  })
  it('shows a new file as added', () => {
    expect(lineDifference('', 'a\n')).toEqual([{ kind: 'added', text: 'a' }])
  })
})

describe('the diagram', () => {
  it('draws references between objects that are there', () => {
    expect(links([pier, berth])).toMatchObject([{ from: 'Berth', to: 'Pier', label: 'pier', required: true }])
    expect(links([berth])).toEqual([])
  })
  it('shows the key first and leaves out references', () => {
    expect(lines(berth).map((line) => line.text)).toEqual(['code'])
    expect(lines(pier)[0]).toEqual({ text: 'code', kind: 'key' })
  })
})

describe('a service', () => {
  const resource = {
    operations: { read: ['number', 'vessel', 'vessel.owner.name'], create: ['vessel'] },
    filterable: ['number'],
    sortable: [],
  } as unknown as ResourceView

  it('shows its fields as a tree', () => {
    expect(fieldRows(resource).map((row) => `${row.depth}${row.name}${row.isField ? '' : '?'}`)).toEqual([
      '0number',
      '0vessel',
      '1owner?',
      '2name',
    ])
  })

  it('offers a body to begin with', () => {
    const contract = {
      paths: {
        '/stays': {
          post: {
            requestBody: { content: { 'application/json': { schema: { $ref: '#/components/schemas/S' } } } },
          },
        },
      },
      components: {
        schemas: {
          S: {
            type: 'object',
            properties: {
              arrival: { type: 'string', examples: ['2026-05-01'] },
              charges: {
                type: 'array',
                items: {
                  type: 'object',
                  properties: { line: { type: 'integer' }, tariff: { type: 'string' } },
                },
              },
            },
          },
        },
      },
    }
    expect(exampleBody(contract, 'stays', 'POST')).toEqual({
      arrival: '2026-05-01',
      charges: [{ tariff: '' }],
    })
  })

  it('shows what can be asked and what comes back', () => {
    const schema = { type: 'object', properties: { line: { type: 'integer' }, code: { examples: ['N-01'] } } }
    const berths: Contract = {
      paths: {
        '/berths': {
          get: {
            parameters: [
              { name: 'filter', in: 'query', example: 'powered' },
              { name: 'limit', in: 'query' },
            ],
            responses: { '200': { content: { 'application/json': { schema } } }, '400': {} },
          },
        },
        '/berths/{key}': { delete: { responses: { '204': {} } } },
      },
      components: { schemas: {} },
    }
    expect(exampleQuery(berths, '/berths', 'GET')).toBe('?filter=powered')
    expect(exampleAnswer(berths, '/berths', 'GET')).toEqual({
      status: '200',
      body: { line: 1, code: 'N-01' },
    })
    expect(exampleAnswer(berths, '/berths/{key}', 'DELETE')).toEqual({ status: '204', body: undefined })
    expect(exampleAnswer(berths, '/berths', 'PUT')).toBeUndefined()
  })

  it('can be called from a shell whatever the body holds', () => {
    expect(asCurl({ method: 'POST', path: '/api/x', body: `{"name":"Gull's"}` }, 'http://h')).toContain(
      `'{"name":"Gull'\\''s"}'`,
    )
  })

  it('says the version it is based on', () => {
    const trial = { method: 'PATCH', path: '/api/x', body: '{}', ifMatch: '"3"' }
    expect(asCurl(trial, 'http://h')).toContain(`-H 'If-Match: "3"'`)
  })
})

describe('a problem', () => {
  it('is told at its fields', () => {
    const problem = new ApiProblem({
      title: '',
      status: 422,
      detail: '2 things are wrong',
      errors: [
        { pointer: '/charges/0/tariff', code: 'SP4103', message: 'Tariff is required.' },
        { pointer: '', code: 'SP4112', message: 'In use.' },
      ],
    })
    expect(problem.byField()).toEqual({ 'charges/0/tariff': 'Tariff is required.', '': 'In use.' })
  })
  it('needs the forgery token of this page', () => {
    expect(forgeryToken('a=1; XSRF-TOKEN=b%3D; c=2')).toBe('b=')
    expect(forgeryToken('a=1')).toBe('')
  })
})

describe('what was done lately', () => {
  it('is told once for many of a kind', () => {
    const one = {
      object: 'Stay',
      label: 'Stay',
      record: '1',
      operation: 'created',
      at: '',
      by: 'admin',
      via: 'import',
    }
    expect(grouped([one, one, { ...one, by: 'clerk' }]).map((group) => group.count)).toEqual([2, 1])
  })
})

describe('a form that the service works on', () => {
  const stay: ObjectView = {
    ...pier,
    name: 'Stay',
    fields: [
      field('berth', 'reference'),
      field('rate', 'amount'),
      field('total', 'amount', { readOnly: true }),
    ],
    parts: [
      {
        name: 'charges',
        label: 'Charges',
        fields: [field('quantity', 'decimal'), field('net', 'amount', { readOnly: true })],
      },
    ],
  }
  const entered = { berth: 'N-01', rate: null, total: null, charges: [{ quantity: 2, net: null }] }
  const preview = { berth: 'N-01', rate: 12, total: 30, charges: [{ quantity: 2, net: 18 }] }

  it('shows totals and what is filled in, but keeps what was typed', () => {
    expect(formShown(stay, entered, new Set(['berth']), preview)).toMatchObject({ rate: 12, total: 30 })
    expect(formShown(stay, { ...entered, rate: 5 }, new Set(['rate']), preview).rate).toBe(5)
    expect(formShown(stay, entered, new Set(), preview).charges).toEqual([{ quantity: 2, net: 18 }])
  })

  it('sends no value that the service works out', () => {
    expect(changes(stay, undefined, entered).charges).toEqual([{ quantity: 2 }])
  })
})

describe('the drawing of a lifecycle', () => {
  it('puts states in columns by how far they are from the first', () => {
    const drawing = stateLayout({
      initial: 'Requested',
      states: ['Requested', 'Confirmed', 'Cancelled'],
      transitions: [
        { name: 'confirm', from: ['Requested'], to: 'Confirmed', label: '' },
        { name: 'cancel', from: ['Requested', 'Confirmed'], to: 'Cancelled', label: '' },
      ],
    })
    const x = Object.fromEntries(drawing.boxes.map((box) => [box.name, box.x]))
    expect(x.Confirmed).toBeGreaterThan(x.Requested)
    expect(x.Cancelled).toBe(x.Confirmed)
    expect(drawing.arrows).toHaveLength(3)
  })
})
