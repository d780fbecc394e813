// Finds a berth, asks for a stay and cancels it over OData, with the npm package odata (o.js).
// Takes the address of the service, and the id and secret of a client.
import { o } from 'odata'

const [address, id, secret] = process.argv.slice(2)
const desk = o(address + '/', {
  headers: {
    Authorization: 'Basic ' + Buffer.from(`${id}:${secret}`).toString('base64'),
    'Content-Type': 'application/json',
  },
})

const berths = await desk
  .get('berths')
  .query({ $filter: 'powered eq true and maxDraught ge 2.5', $orderby: 'maxLength desc', $top: 3, $select: 'code,maxLength' })
console.log(`${berths.length} berths, the longest ${berths[0].maxLength} m`)

const [{ vessel }] = await desk
  .get('stays')
  .query({ $expand: 'vessel($select=key)', $top: 1, $filter: "state eq 'Departed'" })

const stay = await desk
  .post('stays', {
    vesselKey: vessel.key,
    berthKey: berths[0].code,
    arrival: '2027-08-02',
    departure: '2027-08-06',
    charges: [{ tariffKey: 'WATER', quantity: 3 }],
  })
  .query()
console.log(`asked for, ${stay.nights} nights, ${stay.charges.length} charge`)

const cancelled = await desk.post(`stays('${stay.number}')/cancel`, {}).query()
console.log(`${cancelled.state}, version ${cancelled.version}`)

try {
  await desk.get("stays('ST-1999-000001')").query()
} catch (answer) {
  const { error } = await answer.json()
  console.log(`refused: ${error.message}`)
}
