import { count } from '@/composables/format'
import type { Figures, Group, Chart } from '@/api/figures'
import type { FieldView } from '@/api/client'

/** Colours of a chart, from the page's own look. */
export interface Colours {
  series: string[]
  text: string
  line: string
}

/** What a group is called on an axis. */
export function groupLabel(group: Group, by: FieldView | undefined, step?: string): string {
  if (group.value === undefined || group.value === null) return 'none'
  if (by?.type === 'choice') return by.choices.find((one) => one.code === group.value)?.label ?? group.value
  if (by?.type === 'boolean') return group.value === 'true' ? 'yes' : 'no'
  if (group.title) return `${group.value} ${group.title}`
  const [year, month] = group.value.split('-')
  switch (step) {
    case 'YEAR':
      return year
    case 'QUARTER':
      return `${year} Q${Math.ceil(Number(month) / 3)}`
    case 'MONTH':
      return `${year}-${month}`
    default:
      return group.value
  }
}

const MOST_SLICES = 8

/** Groups and their values as they are drawn; of a ring, the small ones together. */
export function pointsOf(figures: Figures, chart: Chart, by: FieldView | undefined) {
  const all = figures.groups.map((group) => ({
    name: groupLabel(group, by, chart.step),
    value: chart.sum ? Number(group.sums[chart.sum] ?? 0) : group.count,
  }))
  if (chart.kind !== 'RING' || all.length <= MOST_SLICES) return all
  const sorted = [...all].sort((a, b) => b.value - a.value)
  const rest = sorted.slice(MOST_SLICES - 1).reduce((sum, one) => sum + one.value, 0)
  return [...sorted.slice(0, MOST_SLICES - 1), { name: 'others', value: rest }]
}

/** The drawing of a chart, as the chart library takes it. */
export function optionOf(
  points: { name: string; value: number }[],
  kind: Chart['kind'],
  title: string,
  colours: Colours,
) {
  const base = {
    color: colours.series,
    textStyle: { color: colours.text, fontFamily: 'inherit' },
    aria: { enabled: true, label: { description: describe(points, title) } },
    tooltip: { trigger: kind === 'RING' ? 'item' : 'axis', confine: true },
    animation: false,
  }
  if (kind === 'RING') {
    return {
      ...base,
      legend: {
        type: 'scroll',
        orient: 'vertical',
        right: 0,
        top: 'middle',
        textStyle: { color: colours.text },
      },
      series: [
        {
          name: title,
          type: 'pie',
          radius: ['45%', '78%'],
          center: ['35%', '50%'],
          label: { show: false },
          data: points,
        },
      ],
    }
  }
  const axis = { axisLine: { lineStyle: { color: colours.line } }, axisLabel: { color: colours.text } }
  return {
    ...base,
    grid: { left: 8, right: 16, top: 12, bottom: 4, containLabel: true },
    xAxis: { type: 'category', data: points.map((one) => one.name), ...axis },
    yAxis: {
      type: 'value',
      minInterval: isWhole(points) ? 1 : 0,
      splitLine: { lineStyle: { color: colours.line } },
      ...axis,
    },
    series: [
      {
        name: title,
        type: kind === 'LINE' ? 'line' : 'bar',
        data: points.map((one) => one.value),
        barMaxWidth: 42,
        symbolSize: 6,
      },
    ],
  }
}

const isWhole = (points: { value: number }[]) => points.every((one) => Number.isInteger(one.value))

/** What is drawn, in words, for those who do not see it. */
export function describe(points: { name: string; value: number }[], title: string): string {
  const said = points.slice(0, 12).map((one) => `${one.name} ${count(one.value)}`)
  const more = points.length > said.length ? `, and ${points.length - said.length} more` : ''
  return `${title}: ${said.join(', ')}${more}`
}
