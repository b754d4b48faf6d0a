"""Vouchers as they are made and printed: how many codes a set wants, and what stands on each slip."""

from __future__ import annotations

from collections.abc import Sequence

from pydantic import Field

from ..base.frozen import Frozen
from ..context.on_air import broadcasts
from ..context.plan import Plan
from ..design import Portal, WirelessName
from ..settings import VoucherSheet, as_printed, voucher_sheets

CODES = "vouchers/"


class Slip(Frozen):
    """One voucher on paper; ``whose`` is the room that it is for, else its number."""

    whose: str
    code: str = Field(description="in groups, as it is typed", repr=False)


class SlipSheet(Frozen):
    """What all slips of a set say alike, and the slips."""

    name: str
    place: str
    ssids: tuple[str, ...] = Field(description="names on the air by which one comes to the page")
    open: bool = Field(description="whether the first of them asks for no key")
    lasts: str
    devices: int
    limit: str = Field(description="what one device gets at most, nothing where the line decides")
    price: str
    slips: tuple[Slip, ...]


def codes_wanted(plan: Plan) -> dict[str, int]:
    """Return how many codes each set of vouchers wants, by what they are kept under."""
    return {f"{CODES}{key}": sheet.total for key, sheet in vouchers_of(plan).items()}


def vouchers_of(plan: Plan) -> dict[str, VoucherSheet]:
    """Return the sets of vouchers by their id."""
    return {v.id: v for v in voucher_sheets(plan.design, plan.catalogue)}


def ssids_of(plan: Plan, network: str) -> list[tuple[str, bool]]:
    """Return the names on the air of a network as clients see them, and whether each asks for no key; those
    first."""
    on_air, rows = broadcasts(plan.design, plan.catalogue), plan.design.of(WirelessName).values()
    mine = [n for n in rows if n.network == network]
    found = [(part.ssid, n.security == "open_portal") for n in mine for part in on_air[n.id]]
    return sorted(dict.fromkeys(found), key=lambda row: not row[1])


def slips_of(plan: Plan, name: str, key: str, codes: Sequence[str]) -> SlipSheet:
    """Return the slips of a set. Codes beyond what it wants were made before, stay valid, and are numbered.

    Args:
        name: of the project, for a site whose client has none.
        key: id of the set.
    """
    sheet = vouchers_of(plan)[key]
    names = ssids_of(plan, plan.design.of(Portal)[sheet.portal].network)
    owners = [*sheet.rooms, *(f"No. {k}" for k in range(len(sheet.rooms) + 1, len(codes) + 1))]
    return SlipSheet(
        name=sheet.name,
        place=plan.design.site.client_name or name,
        ssids=tuple(ssid for ssid, _ in names),
        open=bool(names) and names[0][1],
        lasts=sheet.lasts,
        devices=sheet.devices,
        limit=f"up to {sheet.limit_mbps:g} Mb/s" if sheet.limit_mbps is not None else "",
        price=sheet.price,
        slips=tuple(Slip(whose=w, code=as_printed(c)) for w, c in zip(owners, codes, strict=False)),
    )
