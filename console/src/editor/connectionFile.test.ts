import { describe, expect, it } from 'vitest'
import type { DocumentView, OperationView, ShapeView } from '@/api/connections'
import {
  addOperation,
  connectionName,
  fieldName,
  newConnectionText,
  readConnection,
  removeFrom,
  rename,
  setOn,
  setOnConnection,
} from './connectionFile'

const plain = (type: string): ShapeView => ({ type, properties: {} })
const object = (properties: Record<string, ShapeView>): ShapeView => ({
  type: 'object',
  properties,
})
const listOf = (items: ShapeView): ShapeView => ({ type: 'array', properties: {}, items })

const flags: OperationView = {
  method: 'GET',
  path: '/flags',
  summary: 'All flags',
  parameters: [{ name: 'q', place: 'query', required: false, type: 'string' }],
  answer: object({ found: listOf(object({ id: plain('string'), title: plain('string') })) }),
}
const depth: OperationView = {
  method: 'GET',
  path: '/places/{id}/depths',
  summary: '',
  parameters: [
    { name: 'id', place: 'path', required: true, type: 'string' },
    { name: 'on-day', place: 'query', required: true, type: 'string (date)' },
    { name: 'unit', place: 'query', required: false, type: 'string' },
  ],
  answer: object({ depth: plain('number') }),
}
const document: DocumentView = {
  title: 'Signal & depths',
  version: '2',
  address: '',
  operations: [flags, depth],
  more: false,
}

const TEXT = `# Where flags come from.
connection: signals
contract: signals.openapi.json
lookups:
  flags: { call: GET /flags, items: found, key: id, label: title }
calls:
  depth: { call: "GET /places/{id}/depths", parameters: { place: { type: text, sent: id } }, returns: decimal }
`

describe('the file of a connection', () => {
  it('is read as it stands', () => {
    const read = readConnection(TEXT)!
    expect(read).toMatchObject({ name: 'signals', setting: 'signals', contract: 'signals.openapi.json' })
    expect(read.lookups).toEqual([
      { name: 'flags', call: 'GET /flags', items: 'found', key: 'id', label: 'title' },
    ])
    expect(read.calls[0]).toMatchObject({ name: 'depth', parameters: ['place'], returns: 'decimal' })
  })

  it('is none where the text says something else', () => {
    expect(readConnection('object: Boat\n')).toBeUndefined()
    expect(readConnection('connection: [')).toBeUndefined()
  })

  it('keeps what nobody touched', () => {
    const now = setOn(TEXT, 'lookups', 'flags', 'search', 'q')
    expect(now).toContain('# Where flags come from.')
    expect(readConnection(now)!.lookups[0].search).toBe('q')
    expect(setOn(now, 'lookups', 'flags', 'search', '')).toBe(TEXT)
  })

  it('says what it is called', () => {
    expect(readConnection(setOnConnection(TEXT, 'label', 'Signals'))!.label).toBe('Signals')
    expect(setOnConnection(setOnConnection(TEXT, 'label', 'Signals'), 'label', '')).toBe(TEXT)
  })

  it('gives a name to something else, and loses it', () => {
    const renamed = rename(TEXT, 'calls', 'depth', 'howDeep')
    expect(readConnection(renamed)!.calls[0]).toMatchObject({ name: 'howDeep', returns: 'decimal' })
    expect(readConnection(removeFrom(renamed, 'calls', 'howDeep'))!.calls).toEqual([])
  })

  it('takes a list of codes as a lookup, with its places', () => {
    expect(readConnection(addOperation('connection: x\n', flags))!.lookups).toEqual([
      { name: 'flags', call: 'GET /flags', items: 'found', key: 'id', label: 'title', search: 'q' },
    ])
  })

  it('takes anything else as a call, with what it needs under names that logic can use', () => {
    const text = addOperation('connection: x\n', depth)
    expect(text).toContain('itsId:')
    expect(text).toContain('sent: on-day')
    expect(readConnection(text)!.calls).toEqual([
      {
        name: 'depths',
        call: 'GET /places/{id}/depths',
        parameters: ['itsId', 'onDay'],
        returns: 'decimal',
        at: 'depth',
      },
    ])
  })

  it('begins with what was ticked, each under a name of its own', () => {
    const text = newConnectionText({ name: 'signals', document, operations: [flags, flags, depth] })
    const read = readConnection(text)!
    expect(read.label).toBe('Signal & depths')
    expect(read.lookups.map((one) => one.name)).toEqual(['flags', 'flags2'])
    expect(read.calls).toHaveLength(1)
  })

  it('makes names of what others call things', () => {
    expect(connectionName('Tide table (2026)')).toBe('tide-table-2026')
    expect(connectionName('北')).toBe('outside')
    expect(fieldName('page-size')).toBe('pageSize')
    expect(fieldName('X-Trace')).toBe('xTrace')
    expect(fieldName('2nd')).toBe('v2nd')
  })
})
