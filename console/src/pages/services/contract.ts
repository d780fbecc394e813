/** As much of an OpenAPI document as is needed here. */
export interface Contract {
  paths: Record<string, Record<string, { requestBody?: { content: Record<string, { schema: Schema }> } }>>
  components: { schemas: Record<string, Schema> }
}

interface Schema {
  $ref?: string
  type?: string | string[]
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
  return schema ? example(contract!, schema) : {}
}

function example(contract: Contract, schema: Schema): unknown {
  if (schema.$ref) return example(contract, contract.components.schemas[schema.$ref.split('/').at(-1)!] ?? {})
  if (schema.examples?.length) return schema.examples[0]
  if (schema.enum?.length) return schema.enum[0]
  const type = Array.isArray(schema.type) ? schema.type[0] : schema.type
  if (type === 'object') {
    return Object.fromEntries(
      Object.entries(schema.properties ?? {})
        .filter(([name]) => name !== 'line')
        .map(([name, one]) => [name, example(contract, one)]),
    )
  }
  if (type === 'array') return schema.items ? [example(contract, schema.items)] : []
  return ''
}
