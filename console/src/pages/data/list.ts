import type { LocationQuery } from 'vue-router'

/** What a list shows; kept in the address, so that it can be bookmarked and sent to somebody. */
export interface ListState {
  search?: string
  filter?: string
  sort?: string
  retired?: string
}

const one = (value: LocationQuery[string]) => (typeof value === 'string' && value !== '' ? value : undefined)

export function readList(query: LocationQuery): ListState {
  return {
    search: one(query.search),
    filter: one(query.filter),
    sort: one(query.sort),
    retired: one(query.retired),
  }
}

/** The address's query; what is not set is left out. */
export function writeList(list: ListState): Record<string, string> {
  return Object.fromEntries(Object.entries(list).filter(([, value]) => value !== undefined)) as Record<
    string,
    string
  >
}
