import { describe, expect, it } from 'vitest'
import { placeOfStep } from './ran'

const OBJECTS = [
  { name: 'Stay', label: 'Stay' },
  { name: 'WorkRequest', label: 'Work request' },
]
const step = (kind: string, title: string) => ({ depth: 0, kind, title, detail: '', result: '', micros: 1 })
const place = (kind: string, title: string) => placeOfStep(step(kind, title), OBJECTS)

describe('what a step ran', () => {
  it('is found in the model by label and name', () => {
    expect(place('CALL', 'Stay ST-2026-000392: checkOut')).toEqual({ object: 'Stay', name: 'checkOut' })
    expect(place('CALL', 'Stay.quote')).toEqual({ object: 'Stay', name: 'quote' })
    expect(place('RULE', 'Work request WR-00001: assigned (on change of yard)')).toEqual({
      object: 'WorkRequest',
      name: 'assigned',
    })
    expect(place('CHECK', 'Stay ST-1: inTime')?.name).toBe('inTime')
  })

  it('is nothing for other steps', () => {
    expect(place('REFUSED', 'Stay ST-1: no')).toBeUndefined()
    expect(place('RULE', 'Buoy B-1: lit')).toBeUndefined()
  })
})
