import type { ResourceView } from '@/api/client'

/** A line of the tree of fields; one that is no field itself only groups those below it. */
export interface FieldLine {
  path: string
  name: string
  depth: number
  isField: boolean
}

/** All fields any operation shows, as a tree written line by line. */
export function fieldRows(resource: ResourceView): FieldLine[] {
  const paths: string[] = []
  const { read = [], query = [], create = [], update = [] } = resource.operations
  for (const list of [read, query, create, update, resource.filterable, resource.sortable]) {
    for (const path of list) if (!paths.includes(path)) paths.push(path)
  }
  const rows: FieldLine[] = []
  const add = (prefix: string, depth: number) => {
    const below = prefix ? paths.filter((path) => path.startsWith(prefix + '.')) : paths
    const heads = [...new Set(below.map((path) => path.slice(prefix ? prefix.length + 1 : 0).split('.')[0]))]
    for (const name of heads) {
      const path = prefix ? `${prefix}.${name}` : name
      rows.push({ path, name, depth, isField: paths.includes(path) })
      add(path, depth + 1)
    }
  }
  add('', 0)
  return rows
}
