import { describe, expect, it } from 'vitest'
import { standingAfter } from './soFar'

const step = (kind: string, title: string, result = '') => ({
  depth: 0,
  kind,
  title,
  detail: '',
  result,
  micros: 1,
})
const STEPS = [
  step('REQUEST', 'checkOut Stay ST-1'),
  step('CALL', 'Stay ST-1: checkOut'),
  step('LOCAL', 'drawn', '20.5'),
  step('SET', 'Stay ST-1: remarks', 'Left early'),
  step('FORMULA', 'Stay ST-1: grossTotal', '90.00 → 100.97'),
  step('TRANSITION', 'checkOut', 'Alongside → Departed'),
  step('FORMULA', 'Pier N: powerDrawn', '58 → 42'),
  step('SET', 'Stay ST-1: remarks', 'Gone'),
]

describe('where a run stands after a step', () => {
  it('shows each record with the last of each of its values', () => {
    expect(standingAfter(STEPS, STEPS.length)).toEqual([
      { of: 'Local values', values: [{ name: 'drawn', value: '20.5' }] },
      {
        of: 'Stay ST-1',
        values: [
          { name: 'remarks', value: 'Gone' },
          { name: 'grossTotal', value: '100.97' },
          { name: 'state', value: 'Departed' },
        ],
      },
      { of: 'Pier N', values: [{ name: 'powerDrawn', value: '42' }] },
    ])
  })

  it('knows nothing of what comes later', () => {
    expect(standingAfter(STEPS, 4).map((one) => one.of)).toEqual(['Local values', 'Stay ST-1'])
    expect(standingAfter(STEPS, 4)[1].values).toEqual([{ name: 'remarks', value: 'Left early' }])
    expect(standingAfter(STEPS, 0)).toEqual([])
  })
})
