/** As much of an OpenAPI document as is needed here. */
export interface Contract {
  paths: Record<string, Record<string, Operation>>
  components: { schemas: Record<string, Schema> }
}

export interface Operation {
  parameters?: { name?: string; in?: string; example?: unknown }[]
  requestBody?: { content: Content }
  responses?: Record<string, { content?: Content }>
}
type Content = Record<string, { schema: Schema }>

interface Schema {
  $ref?: string
  type?: string | string[]
  format?: string
  properties?: Record<string, Schema>
  items?: Schema
  enum?: unknown[]
  examples?: unknown[]
}

/** A body that could be sent: every field with an example of its kind. */
export function exampleBody(contract: Contract | undefined, resource: string, method: string): unknown {
  const path = method === 'POST' ? `/${resource}` : `/${resource}/{key}`
  const content = contract?.paths[path]?.[method.toLowerCase()]?.requestBody?.content
  const schema = content ? Object.values(content)[0]?.schema : undefined
  return schema ? example(contract!, schema, true) : {}
}

/** What can be asked behind the address, with an example of each; empty when there is nothing. */
export function exampleQuery(contract: Contract, path: string, method: string): string {
  const given = (contract.paths[path]?.[method.toLowerCase()]?.parameters ?? [])
    .filter((one) => one.in === 'query' && one.example !== undefined)
    .map((one) => `${one.name}=${String(one.example)}`)
  return given.length ? `?${given.join('&')}` : ''
}

/** An answer that could come back when all is right; a body of undefined is none. */
export function exampleAnswer(
  contract: Contract,
  path: string,
  method: string,
): { status: string; body: unknown } | undefined {
  const responses = contract.paths[path]?.[method.toLowerCase()]?.responses ?? {}
  const status = Object.keys(responses).find((one) => one.startsWith('2'))
  if (!status) return undefined
  const content = responses[status].content
  const schema = content ? Object.values(content)[0]?.schema : undefined
  return { status, body: schema && example(contract, schema, false) }
}

function example(contract: Contract, schema: Schema, sent: boolean): unknown {
  if (schema.$ref)
    return example(contract, contract.components.schemas[schema.$ref.split('/').at(-1)!] ?? {}, sent)
  if (schema.examples?.length) return schema.examples[0]
  if (schema.enum?.length) return schema.enum[0]
  const type = Array.isArray(schema.type) ? schema.type[0] : schema.type
  if (type === 'object') {
    return Object.fromEntries(
      Object.entries(schema.properties ?? {})
        .filter(([name]) => !sent || name !== 'line')
        .map(([name, one]) => [name, example(contract, one, sent)]),
    )
  }
  if (type === 'array') return schema.items ? [example(contract, schema.items, sent)] : []
  if (type === 'integer') return 1
  if (schema.format === 'uuid') return '01a4b2c6-7d1e-7f00-8a2b-3c4d5e6f7081'
  return ''
}
