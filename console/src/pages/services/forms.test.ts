import { describe, expect, it } from 'vitest'
import { formsOf, idOf } from './forms'

describe('the forms of a contract', () => {
  it('are those of its protocols, and one for all', () => {
    const titles = (protocols: string[]) => formsOf(protocols).map((one) => one.title)
    expect(titles(['rest'])).toEqual(['OpenAPI', 'JSON Schema'])
    expect(titles(['soap', 'odata'])).toEqual(['WSDL', 'OData', 'JSON Schema'])
    expect(titles([])).toEqual(['JSON Schema'])
  })

  it('tell versions of a service apart', () => {
    expect(idOf({ name: 'desk', version: 2 })).toBe('desk-v2')
  })
})
