import { describe, expect, it } from 'vitest'
import {
  addStep,
  readRoute,
  removeStep,
  setOnRoute,
  setServices,
  setStep,
  targets,
  waysTo,
} from './routeFile'

const ROUTE = `# How papers follow each other.
route: papers
steps:
  - { from: Payer, to: Job,  through: boat.payer }   # by the boat
  - { from: Job,   to: Job.hours }
services: [desk]
`

const OBJECTS = [
  { name: 'Payer', fields: [{ name: 'code' }], parts: [] },
  { name: 'Boat', fields: [{ name: 'payer', to: 'Payer' }], parts: [] },
  {
    name: 'Job',
    fields: [
      { name: 'boat', to: 'Boat' },
      { name: 'payer', to: 'Payer' },
      { name: 'first', to: 'Job' },
    ],
    parts: [{ name: 'hours', fields: [{ name: 'by', to: 'Payer' }] }],
  },
]

describe('the file of a route', () => {
  it('is read as it is said', () => {
    expect(readRoute(ROUTE)).toEqual({
      name: 'papers',
      label: undefined,
      describe: undefined,
      steps: [
        { from: 'Payer', to: 'Job', through: 'boat.payer' },
        { from: 'Job', to: 'Job.hours', through: undefined },
      ],
      services: ['desk'],
    })
    expect(readRoute('object: Job')).toBeUndefined()
    expect(readRoute('route: papers')?.steps).toEqual([])
  })

  it('keeps what nobody touched', () => {
    const more = addStep(ROUTE, { from: 'Job', to: 'Bill', through: 'job' })
    expect(more).toContain('  - { from: Payer, to: Job,  through: boat.payer }   # by the boat\n')
    expect(more).toContain('  - { from: Job, to: Bill, through: job }\n')
    expect(readRoute(removeStep(more, 2))).toEqual(readRoute(ROUTE))
    expect(setStep(ROUTE, 1, { from: 'Job', to: 'Bill', through: '' })).toContain(
      '  - { from: Job, to: Bill }\n',
    )
  })

  it('begins with what is not there yet', () => {
    expect(addStep('route: papers\n', { from: 'Payer', to: 'Job', through: 'payer' })).toBe(
      'route: papers\nsteps:\n  - { from: Payer, to: Job, through: payer }\n',
    )
    expect(setServices('route: papers\n', ['desk', 'yard'])).toContain('services: [desk, yard]')
    expect(setServices(ROUTE, [])).not.toContain('services')
    expect(setOnRoute(ROUTE, 'label', 'Papers')).toContain('label: Papers')
    expect(setOnRoute(setOnRoute(ROUTE, 'label', 'Papers'), 'label', '')).toBe(ROUTE)
  })
})

describe('ways', () => {
  it('lead from a document or its line items to an object, the shortest first', () => {
    expect(waysTo(OBJECTS, 'Job', 'Payer')).toEqual([
      'payer',
      'boat.payer',
      'first.payer',
      'first.boat.payer',
      'first.first.payer',
    ])
    expect(waysTo(OBJECTS, 'Job.hours', 'Payer')).toEqual(['by'])
    expect(waysTo(OBJECTS, 'Payer', 'Job')).toEqual([])
    expect(waysTo(OBJECTS, 'Nothing', 'Job')).toEqual([])
    expect(targets(OBJECTS)).toEqual(['Payer', 'Boat', 'Job', 'Job.hours'])
  })
})
