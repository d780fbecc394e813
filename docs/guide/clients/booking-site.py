"""Finds a berth, asks for a stay, changes it safely and cancels it over REST, with a client generated from the contract.

Takes the address of the service, and the id and secret of a client; the generated package is called booking.
"""

import sys
from datetime import date

import booking

address, client_id, secret = sys.argv[1:4]
configuration = booking.Configuration(host=address, username=client_id, password=secret)


def departed_stays(stays):
    """Goes through all pages."""
    after = None
    while True:
        page = stays.query_stays(filter='state = "Departed"', limit=20, after=after)
        yield from page.items
        after = page.next
        if after is None:
            return


with booking.ApiClient(configuration) as service:
    berths = booking.BerthsApi(service)
    stays = booking.StaysApi(service)

    with_power = berths.query_berths(filter="powered and maxDraught >= 2.5", limit=3, count=True)
    print(f"{len(with_power.items)} of {with_power.count} berths with power")

    earlier = [stay.number for stay in departed_stays(stays)]
    print(f"{len(earlier)} stays are over, each once: {len(earlier) == len(set(earlier))}")

    vessel = booking.VesselsApi(service).read_vessel(stays.read_stay(earlier[0]).vessel.key)
    fits = f"maxLength >= {vessel.length} and maxDraught >= {vessel.draught or 0} and pier.open"
    fitting = berths.query_berths(filter=fits, sort="nightlyRate", limit=1)
    made = stays.create_stay(
        booking.StayCreate(
            vessel=vessel.registration,
            berth=fitting.items[0].code,
            arrival=date(2027, 11, 2),
            departure=date(2027, 11, 5),
            charges=[booking.StayCreateChargesInner(tariff="WATER", quantity=3)],
        )
    )
    print(f"asked for, {made.nights} nights, {len(made.charges)} charge, {made.gross_total} with tax")

    moved = booking.StayUpdate(departure=date(2027, 11, 6))
    stays.update_stay(made.number, moved, if_match=f'"{made.version}"')
    try:
        stays.update_stay(made.number, moved, if_match=f'"{made.version}"')
    except booking.ApiException as problem:
        print(f"{problem.status}: changed meanwhile")

    cancelled = stays.cancel_stay(made.number)
    print(f"{cancelled.state}, version {cancelled.version}")

    try:
        stays.read_stay("ST-1999-000001")
    except booking.ApiException as problem:
        # A problem (RFC 9457): a sentence in detail, and each fault with its place in errors.
        print(f"refused: {booking.Problem.from_json(problem.body).detail}")
