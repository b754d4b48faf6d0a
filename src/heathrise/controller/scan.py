"""A scan of the neighbourhood by a site's access points: what it costs, when it is, what it heard."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterator, Mapping, Sequence
from datetime import datetime, timedelta
from typing import ClassVar, Literal

from pydantic import Field

from ..core.base.bands import Band
from ..core.base.frozen import Frozen
from ..core.context.band_plan import band_plan_of
from ..core.context.clock import next_time
from ..core.context.on_air import broadcasts
from ..core.context.plan import Plan
from ..core.evaluation.evaluate import evaluate
from ..core.views.managed import tree_of
from ..core.views.scanned import HeardRadio, ScanOffer, named, scan_offer
from .contract import Measured, Scan
from .work import Seen


class StrangerRow(Frozen):
    """A radio of somebody else's: where it is loudest, and how many of ours hear it."""

    KEY: ClassVar = ("address", "band", "channel")

    address: str
    name: str
    band: Band
    channel: int
    width_mhz: int
    first: float = Field(description="channel number at which its block begins, and")
    last: float = Field(description="at which it ends")
    dbm: float = Field(description="at the one that hears it loudest, dBm")
    loudest_at: str
    heard_by: int
    ours: bool = Field(description="whether it sends a name of this site, and is none of its devices")


class OwnBlock(Frozen):
    """A channel of this site, as planned, and how many of its radios are on it."""

    KEY: ClassVar = ("band", "channel")

    band: Band
    channel: int
    first: float
    last: float
    radios: int


class ScanView(Frozen):
    """How a scan stands, what one would take off now, and what the last one heard beside the plan."""

    state: Literal["none", "waits", "under_way", "over"]
    local: datetime | None = Field(None, description="time of day on site, as the controller has it")
    begins: datetime | None = None
    ends: datetime | None = None
    quiet: str = Field(description="the site's quiet hour, in words")
    quiet_at: datetime | None = Field(None, description="when that is next")
    takes_min: float = Field(description="how long one takes, min")
    points: int = Field(0, description="access points that would listen")
    clients: int = Field(0, description="clients that are on them now")
    off_with_them: tuple[str, ...] = Field((), description="devices that are off too: they hang on one")
    strangers: tuple[StrangerRow, ...] = ()
    own: tuple[OwnBlock, ...] = ()
    offer: ScanOffer = ScanOffer()


def scan_view(plan: Plan, seen: Seen, scan: Scan, measured: Measured) -> ScanView:
    """Return how a scan stands on a site."""
    local = seen.about.local
    points = scan_points(plan, seen)
    serials = {seen.matched[k] for k in points}
    shown = ScanView(
        state=scan.state,
        local=local,
        begins=_local(seen, scan.begins_s),
        ends=_local(seen, scan.ends_s),
        quiet=plan.drawn.site.quiet_time,
        quiet_at=_quiet_at(plan, local),
        takes_min=round(scan.takes_s / 60, 1),
        points=len(points),
        clients=sum(c.device in serials for c in measured.clients),
        off_with_them=tuple(hanging_on(plan, points)),
    )
    if scan.state != "over":
        return shown
    devices = seen.devices
    heard = [
        HeardRadio(devices[s.serial], s.name, s.bssid, s.band, s.channel, s.width_mhz, s.dbm)
        for s in scan.heard
        if s.serial in devices
    ]
    listened = [devices[s] for s in scan.serials if s in devices]
    offer = scan_offer(plan, heard, listened)
    return shown.model_copy(
        update={"strangers": tuple(_strangers(plan, heard)), "own": tuple(_own(plan)), "offer": offer}
    )


def scan_points(plan: Plan, seen: Seen) -> list[str]:
    """Return the access points of a plan that are online."""
    rows = tree_of(plan).rows.values()
    return [r.id for r in rows if r.kind == "access_point" and r.id in seen.online]


def hanging_on(plan: Plan, points: Sequence[str]) -> list[str]:
    """Return the names of what hangs on some devices over the air, or on what does, and does not listen
    itself."""
    tree, gone = tree_of(plan), set[str]()
    for row in sorted(tree.rows.values(), key=lambda r: tree.depth[r.id]):
        if row.parent in gone or (row.over_air and row.parent in points):
            gone.add(row.id)
    return sorted(tree.rows[k].name for k in gone - set(points))


def seconds_to_quiet(plan: Plan, seen: Seen) -> float | None:
    """Return in how many seconds the site's quiet hour is next, None where the controller has no clock."""
    local = seen.about.local
    at = _quiet_at(plan, local)
    return max(0.0, (at - local).total_seconds()) if at is not None and local is not None else None


def _quiet_at(plan: Plan, local: datetime | None) -> datetime | None:
    site = plan.drawn.site
    return next_time(local, site.quiet_hour, site.quiet_day) if local is not None else None


def _local(seen: Seen, at_s: float | None) -> datetime | None:
    """Return a time by the controller's clock as a time of day on site."""
    about = seen.about
    if at_s is None or about.local is None:
        return None
    return about.local + timedelta(seconds=at_s - about.now_s)


def _strangers(plan: Plan, heard: Sequence[HeardRadio]) -> list[StrangerRow]:
    """Return strangers, the loudest first."""
    names: Mapping[str, str] = {r.id: r.name for r in tree_of(plan).rows.values()}
    ours = {b.ssid for rows in broadcasts(plan.design, plan.catalogue).values() for b in rows}
    bands = band_plan_of(plan.drawn.site, plan.catalogue)
    by_radio: dict[tuple[str, Band, int], list[HeardRadio]] = {}
    for one in heard:
        by_radio.setdefault((one.address, one.band, one.channel), []).append(one)
    rows = []
    for (address, band, channel), mine in by_radio.items():
        loudest = max(mine, key=lambda h: h.dbm)
        first, last = bands.reach(band, loudest.width_mhz, channel)
        rows.append(
            StrangerRow(
                address=address,
                name=named(loudest),
                band=band,
                channel=channel,
                width_mhz=loudest.width_mhz,
                first=first,
                last=last,
                dbm=loudest.dbm,
                loudest_at=names[loudest.device],
                heard_by=len({h.device for h in mine}),
                ours=loudest.name in ours,
            )
        )
    return sorted(rows, key=lambda r: (-r.dbm, r.address))


def _own(plan: Plan) -> Iterator[OwnBlock]:
    radios = [r for r in evaluate(plan).signal.radios or () if r.on]
    bands = band_plan_of(plan.drawn.site, plan.catalogue)
    for (band, channel, width), count in sorted(
        Counter((r.band, r.channel, r.width_mhz) for r in radios).items()
    ):
        first, last = bands.reach(band, width, channel)
        yield OwnBlock(band=band, channel=channel, first=first, last=last, radios=count)
