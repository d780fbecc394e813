// Asks the harbour report who lies alongside and files an inspection, with the npm package soap.
// Takes the contract, the address, and the id and secret of a client; with `digest` behind them it signs in
// with a PasswordDigest of WS-Security in place of HTTP Basic.
import soap from 'soap'

const [contract, address, id, secret, how] = process.argv.slice(2)
const report = await soap.createClientAsync(contract, { endpoint: address })
report.setSecurity(
  how === 'digest'
    ? new soap.WSSecurity(id, secret, { passwordType: 'PasswordDigest', hasNonce: true })
    : new soap.BasicAuthSecurity(id, secret),
)

const [found] = await report.FindStaysAsync({
  criteria: { state: { equals: 'Alongside' }, vesselLength: { from: 12 } },
  sort: [{ field: 'arrival', descending: true }],
  limit: 2,
  count: true,
})
console.log(`${found.page.stay.length} of ${found.page.count} alongside`)

const [{ result }] = await report.CreateInspectionAsync({
  inspection: {
    vessel: found.page.stay[0].vessel.key,
    inspectedOn: '2026-11-02',
    inspector: 'A. Post',
    passed: true,
  },
})
console.log(`filed, version ${result.inspection.version}`)

try {
  await report.GetStayAsync({ key: 'ST-1999-000001' })
} catch (fault) {
  console.log(`refused: ${fault.root.Envelope.Body.Fault.faultstring}`)
}
