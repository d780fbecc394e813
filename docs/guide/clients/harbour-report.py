"""Asks the harbour report who lies alongside and files an inspection, with the Python package zeep.

Takes the contract, the address, and the id and secret of a client.
"""

import sys
from datetime import date

import zeep
from zeep.wsse.username import UsernameToken

contract, address, client_id, secret = sys.argv[1:5]
client = zeep.Client(contract, wsse=UsernameToken(client_id, secret))
report = client.create_service("{urn:sandpiper:harbour-report:v1}HarbourReportSoap12", address)

page = report.FindStays(
    criteria={"state": {"equals": "Alongside"}, "vesselLength": {"from": 12}},
    sort=[{"field": "arrival", "descending": True}],
    limit=2,
    count=True,
)
print(f"{len(page.stay)} of {page.count} alongside")

filed = report.CreateInspection(
    inspection={
        "vessel": page.stay[0].vessel.key,
        "inspectedOn": date(2026, 11, 2),
        "inspector": "A. Post",
        "passed": True,
    }
)
print(f"filed {filed.inspection.inspectedOn}, version {filed.inspection.version}")

try:
    report.GetStay(key="ST-1999-000001")
except zeep.exceptions.Fault as fault:
    print(f"refused: {fault.message}")
