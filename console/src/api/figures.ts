import { api, unwrap, type Schemas } from './client'
import { call } from './http'

export type Figures = Schemas['FiguresView']
export type Group = Schemas['GroupView']
export type NamedView = Schemas['ListView']
export type NewView = Schemas['ListViewBody']
export type Chart = Schemas['ChartView']

/** What the records of a list come to: how many, and what `of` adds up to, in all and by one field. */
export function figuresOf(
  object: string,
  of: { filter?: string; search?: string; retired?: string; of?: string; by?: string; step?: string },
): Promise<Figures> {
  const parameters = new URLSearchParams()
  for (const [name, value] of Object.entries(of)) if (value) parameters.set(name, value)
  return call('GET', `/manage/v1/figures/${encodeURIComponent(object)}?${parameters}`)
}

/** The views of an object's list: one's own and those that all see. */
export const viewsOf = (object: string) =>
  unwrap(api.GET('/manage/v1/views/{object}', { params: { path: { object } } }))

export const keepView = (object: string, body: NewView) =>
  unwrap(api.PUT('/manage/v1/views/{object}', { params: { path: { object } }, body }))

export const removeView = (object: string, name: string, shared: boolean) =>
  unwrap(api.DELETE('/manage/v1/views/{object}', { params: { path: { object }, query: { name, shared } } }))
