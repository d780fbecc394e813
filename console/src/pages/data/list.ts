import type { LocationQuery } from 'vue-router'
import type { Chart, NamedView } from '@/api/figures'

/** What a list shows; kept in the address, so that it can be bookmarked and sent to somebody. */
export interface ListState {
  search?: string
  filter?: string
  sort?: string
  retired?: string
  /** Columns with commas between them. */
  columns?: string
  /** A chart as kind, field, step and sum, with points between them. */
  chart?: string
}

const one = (value: LocationQuery[string]) => (typeof value === 'string' && value !== '' ? value : undefined)
const KEYS = ['search', 'filter', 'sort', 'retired', 'columns', 'chart'] as const

export function readList(query: LocationQuery): ListState {
  return Object.fromEntries(KEYS.map((key) => [key, one(query[key])]))
}

/** The address's query; what is not set is left out. */
export function writeList(list: ListState): Record<string, string> {
  return Object.fromEntries(Object.entries(list).filter(([, value]) => value)) as Record<string, string>
}

const KINDS: Chart['kind'][] = ['BAR', 'LINE', 'RING']
const STEPS = ['DAY', 'WEEK', 'MONTH', 'QUARTER', 'YEAR'] as const

/** The chart an address tells, or undefined when it tells none that can be drawn. */
export function readChart(text: string | undefined): Chart | undefined {
  const [kind, by, step, sum] = (text ?? '').split('.')
  if (!by || !KINDS.includes(kind as Chart['kind'])) return undefined
  return {
    kind: kind as Chart['kind'],
    by,
    step: STEPS.find((known) => known === step),
    sum: sum || undefined,
  }
}

export const writeChart = (chart: Chart | undefined) =>
  chart ? `${chart.kind}.${chart.by}.${chart.step ?? ''}.${chart.sum ?? ''}` : undefined

/** What a named view shows. */
export function ofView(view: NamedView): ListState {
  return {
    search: view.search ?? undefined,
    filter: view.filter ?? undefined,
    sort: view.sort ?? undefined,
    retired: view.retired ?? undefined,
    columns: view.columns.join(',') || undefined,
    chart: writeChart(view.chart),
  }
}

/** A list as it is kept by name. */
export function toView(name: string, shared: boolean, list: ListState) {
  return {
    name,
    shared,
    search: list.search,
    filter: list.filter,
    sort: list.sort,
    retired: list.retired,
    columns: list.columns?.split(',') ?? [],
    chart: readChart(list.chart),
  }
}

export const sameList = (a: ListState, b: ListState) => KEYS.every((key) => (a[key] ?? '') === (b[key] ?? ''))
