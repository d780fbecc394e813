/** The forms a contract is read in; each needs a protocol, or none. */
export const FORMS = [
  {
    needs: 'rest',
    title: 'OpenAPI',
    at: 'openapi.json',
    describe: 'OpenAPI 3.1',
    type: 'application/json',
    ending: 'openapi.json',
  },
  {
    needs: 'soap',
    title: 'WSDL',
    at: 'wsdl',
    describe: 'WSDL 1.1 with its schema',
    type: 'text/xml',
    ending: 'wsdl',
  },
  {
    needs: 'odata',
    title: 'OData',
    at: 'odata',
    describe: 'OData metadata (CSDL XML)',
    type: 'application/xml',
    ending: 'metadata.xml',
  },
  {
    needs: '',
    title: 'JSON Schema',
    at: 'jsonschema',
    describe: 'JSON Schema 2020-12 of what is taken and given',
    type: 'application/schema+json',
    ending: 'schema.json',
  },
]

/** The protocols, with the first step of their addresses. */
export const PROTOCOLS = [
  { name: 'rest', title: 'REST', path: 'api' },
  { name: 'soap', title: 'SOAP', path: 'soap' },
  { name: 'odata', title: 'OData', path: 'odata' },
]

/** The forms that a service of these protocols has. */
export function formsOf(protocols: string[]) {
  return FORMS.filter((one) => !one.needs || protocols.includes(one.needs))
}

/** What tells a version of a service from others in addresses of the console. */
export const idOf = (one: { name: string; version: number }) => `${one.name}-v${one.version}`
