// Finds a berth, asks for a stay, changes it safely and cancels it over REST, with nothing but the language's own fetch.
// Takes the address of the service, and the id and secret of a client.
const [address, id, secret] = process.argv.slice(2)
const credentials = 'Basic ' + Buffer.from(`${id}:${secret}`).toString('base64')

async function call(method, path, body, headers = {}) {
  const answer = await fetch(address + path, {
    method,
    headers: { Authorization: credentials, 'Content-Type': 'application/json', ...headers },
    body: body && JSON.stringify(body),
  })
  const content = answer.status === 204 ? undefined : await answer.json()
  if (answer.ok) return { content, tag: answer.headers.get('ETag') }
  // A problem (RFC 9457): a sentence in detail, and each fault with its place in errors.
  throw Object.assign(new Error(content.detail), { status: answer.status, errors: content.errors ?? [] })
}

async function* all(path, parameters) {
  let after = ''
  do {
    const query = new URLSearchParams({ ...parameters, ...(after && { after }) })
    const { content } = await call('GET', `${path}?${query}`)
    yield* content.items
    after = content.next
  } while (after)
}

let berths = 0
for await (const berth of all('/berths', { filter: 'powered and maxDraught >= 2.5', limit: 20 })) berths += berth.code ? 1 : 0
console.log(`${berths} berths with power`)

const { content: departed } = await call('GET', '/stays?' + new URLSearchParams({ filter: 'state = "Departed"', limit: 1 }))
const { content: earlier } = await call('GET', `/stays/${encodeURIComponent(departed.items[0].number)}`)
const { content: vessel } = await call('GET', `/vessels/${encodeURIComponent(earlier.vessel.key)}`)
const fits = `maxLength >= ${vessel.length} and maxDraught >= ${vessel.draught ?? 0} and pier.open`
const { content: fitting } = await call('GET', '/berths?' + new URLSearchParams({ filter: fits, sort: 'nightlyRate', limit: 1 }))

// With the key of its own, a request that is repeated after a lost answer is done once.
const made = await call(
  'POST',
  '/stays',
  {
    vessel: vessel.registration,
    berth: fitting.items[0].code,
    arrival: '2027-10-02',
    departure: '2027-10-05',
    charges: [{ tariff: 'WATER', quantity: 3 }],
  },
  { 'Idempotency-Key': crypto.randomUUID() },
)
console.log(`asked for, ${made.content.nights} nights, ${made.content.charges.length} charge`)

const path = `/stays/${encodeURIComponent(made.content.number)}`
await call('PATCH', path, { departure: '2027-10-06' }, { 'If-Match': made.tag })
try {
  await call('PATCH', path, { departure: '2027-10-07' }, { 'If-Match': made.tag })
} catch (problem) {
  console.log(`${problem.status}: changed meanwhile`)
}
const { content: cancelled } = await call('POST', `${path}/cancel`)
console.log(`${cancelled.state}, version ${cancelled.version}`)

try {
  await call('POST', '/stays', { vessel: 'GH-101', berth: 'NOWHERE', arrival: '2027-10-02', departure: '2027-10-05' })
} catch (problem) {
  for (const error of problem.errors) console.log(`refused at ${error.pointer}: ${error.message}`)
}
