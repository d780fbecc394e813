import { describe, expect, it } from 'vitest'
import { usesOf } from './uses'

const files = [
  {
    path: 'yard/objects/job.yaml',
    text: `object: Job
label: Job size
key: code
fields:
  code: { type: text }
  size: { type: integer, label: size of it }
  double: { type: integer, formula: size * 2 }
  kind: { type: choice, choices: JobKind }
checks:
  - { name: notZero, that: size > 0, say: "{size} is too small" }
`,
  },
  {
    path: 'yard/objects/part.yaml',
    text: `object: Part
fields:
  size: { type: integer }
  job: { type: reference, to: Job }
  of: { type: integer, formula: job.size + size }
`,
  },
  { path: 'yard/choices/job-kind.yaml', text: 'choices: JobKind\ncodes: [a]\n' },
  {
    path: 'yard/services/desk.yaml',
    text: `service: desk
version: 1
resources:
  jobs:
    object: Job
    read: { fields: [code, size] }
`,
  },
]
const VIEW = {
  path: 'yard/views/open.yaml',
  text: 'view: Open jobs\nobject: Job\nfilter: size > 1\ncolumns: [code, size]\nchart: { kind: bars, by: size }\n',
}
const told = (subject: Parameters<typeof usesOf>[1]) =>
  usesOf(files, subject).map((one) => `${one.file.split('/').at(-1)}:${one.line} ${one.what}`)

describe('what uses something', () => {
  it('is told for an object, but not what it says of itself', () => {
    expect(told({ kind: 'object', name: 'Job' })).toEqual([
      'part.yaml:4 fields › job › to',
      'desk.yaml:5 resources › jobs › object',
    ])
  })

  it('is told for a field, and another field of the same name is none', () => {
    expect(told({ kind: 'field', object: 'Job', name: 'size' })).toEqual([
      'job.yaml:7 fields › double › formula',
      'job.yaml:10 checks › that',
      'job.yaml:10 checks › say',
      'part.yaml:5 fields › of › formula',
      'desk.yaml:6 resources › jobs › read › fields',
    ])
  })

  it('is told for a choice list, and never stumbles over a file that is broken', () => {
    expect(told({ kind: 'choices', name: 'JobKind' })).toEqual(['job.yaml:8 fields › kind › choices'])
    expect(usesOf([{ path: 'x/y.yaml', text: 'a: [b' }], { kind: 'object', name: 'Job' })).toEqual([])
  })

  it('are views as well, which define no object', () => {
    const used = (subject: Parameters<typeof usesOf>[1]) =>
      usesOf([...files, VIEW], subject)
        .filter((one) => one.file === VIEW.path)
        .map((one) => one.what)
    expect(used({ kind: 'object', name: 'Job' })).toEqual(['object'])
    expect(used({ kind: 'field', object: 'Job', name: 'size' })).toEqual(['filter', 'columns', 'chart › by'])
  })
})

describe('where an outside service is used', () => {
  it('is each field, step and package that names what it gives', () => {
    const files = [
      { path: 'a/package.yaml', text: 'package: a\nrates: tide-table.rate\n' },
      {
        path: 'a/connections/t.yaml',
        text: 'connection: tide-table\ncalls:\n  rate: { call: GET /rates }\n',
      },
      {
        path: 'a/objects/b.yaml',
        text: 'object: B\nfields:\n  g: { type: choice, from: tide-table.rates }\nrules:\n  r: { then: "let x = call tide-table.rate(1)" }\n',
      },
    ]
    expect(usesOf(files, { kind: 'outside', name: 'tide-table.rate' }).map((one) => one.what)).toEqual([
      'rates',
      'rules › r › then',
    ])
    expect(usesOf(files, { kind: 'outside', name: 'tide-table.rates' }).map((one) => one.what)).toEqual([
      'fields › g › from',
    ])
  })
})
