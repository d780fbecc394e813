import { describe, expect, it } from 'vitest'
import { ofView, readChart, readList, sameList, toView, writeChart, writeList } from './list'

describe('what a list shows', () => {
  const list = {
    search: 'gull',
    filter: 'size > 3',
    columns: 'code,size',
    chart: 'LINE.day.MONTH.cost',
  }

  it('stands in the address and comes back', () => {
    expect(sameList(readList(writeList(list)), list)).toBe(true)
    expect(writeList({ search: '', filter: undefined })).toEqual({})
  })

  it('is kept by name and comes back', () => {
    const kept = toView('Mine', false, list)
    expect(kept.chart).toEqual({ kind: 'LINE', by: 'day', step: 'MONTH', sum: 'cost' })
    expect(sameList(ofView(kept), list)).toBe(true)
    expect(sameList(ofView(toView('None', true, {})), {})).toBe(true)
  })

  it('has no chart when the address tells nonsense', () => {
    expect(readChart('PIE.state')).toBeUndefined()
    expect(readChart('BAR')).toBeUndefined()
    expect(readChart(undefined)).toBeUndefined()
    expect(readChart(writeChart({ kind: 'BAR', by: 'state' }))).toEqual({ kind: 'BAR', by: 'state' })
  })
})
