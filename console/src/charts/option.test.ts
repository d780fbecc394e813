import { describe, expect, it } from 'vitest'
import type { FieldView } from '@/api/client'
import type { Figures } from '@/api/figures'
import { describe as inWords, groupLabel, optionOf, pointsOf } from './option'

const state = { type: 'choice', choices: [{ code: 'open', label: 'Open' }] } as unknown as FieldView
const group = (value: string | undefined, count: number, more = {}) => ({ value, count, sums: {}, ...more })

describe('a chart', () => {
  it('calls groups what people call them', () => {
    expect(groupLabel(group('open', 1), state)).toBe('Open')
    expect(groupLabel(group('shut', 1), state)).toBe('shut')
    expect(groupLabel(group(undefined, 1), state)).toBe('none')
    expect(groupLabel(group('2026-04-01', 1), undefined, 'QUARTER')).toBe('2026 Q2')
    expect(groupLabel(group('GH-1', 1, { title: 'Gull' }), undefined)).toBe('GH-1 Gull')
  })

  it('counts, or adds up one field', () => {
    const figures = { count: 3, sums: {}, more: false, groups: [group('open', 3, { sums: { cost: 12.5 } })] }
    expect(pointsOf(figures as Figures, { kind: 'BAR', by: 'state' }, state)[0].value).toBe(3)
    expect(pointsOf(figures as Figures, { kind: 'BAR', by: 'state', sum: 'cost' }, state)[0].value).toBe(12.5)
  })

  it('takes the small slices of a ring together, and loses none', () => {
    const groups = Array.from({ length: 20 }, (_, at) => group(`g${at}`, 20 - at))
    const points = pointsOf(
      { count: 210, sums: {}, groups, more: false } as Figures,
      { kind: 'RING', by: 'x' },
      undefined,
    )
    expect(points).toHaveLength(8)
    expect(points.at(-1)!.name).toBe('others')
    expect(points.reduce((sum, one) => sum + one.value, 0)).toBe(210)
  })

  it('is told in words', () => {
    const points = [{ name: 'Open', value: 1200 }]
    expect(inWords(points, 'Jobs by state')).toBe('Jobs by state: Open 1,200')
    const option = optionOf(points, 'LINE', 'Jobs by state', { series: [], text: '', line: '' })
    expect(option.aria.label.description).toContain('Open 1,200')
  })
})
