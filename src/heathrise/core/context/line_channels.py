"""Channels of radios' lines over the land on 5 GHz: chosen first, and kept out of the plan's air."""

from __future__ import annotations

from ..base.frozen import Frozen
from ..base.memo import IdentityMemo
from ..base.wording import some
from ..catalogue import Catalogue
from ..design import Design, Device, FarPoint, Radio
from .band_plan import BandPlan, band_plan, band_plan_of

_ON_5 = "radio_5-"


class LineChannel(Frozen):
    """What both ends of a line are set to. ``clear`` where neither a radio that somebody set nor another
    line is on any of it; ``radar`` where it may have to be left to radar."""

    point: str
    name: str
    channel: int
    width_mhz: int
    clear: bool
    radar: bool
    words: str


_kept: IdentityMemo[dict[str, LineChannel]] = IdentityMemo(64)


def line_channels(design: Design, catalogue: Catalogue) -> dict[str, LineChannel]:
    """Return by place the channel of each line on 5 GHz that was taken, in order of placing.

    Each has a block of its own as long as there are any: of those with the greatest EIRP, without radar
    where there are such, from the top of the band, for access points are planned from its foot.
    """
    points = [p for p in design.of(FarPoint).values() if p.way.startswith(_ON_5)]
    if not points:
        return {}
    rests_on = design.of(FarPoint), design.of(Radio), design.of(Device), design.site, catalogue.rules

    def choose() -> dict[str, LineChannel]:
        return {p.id: _one(design, catalogue, p, k) for k, p in enumerate(points)}

    return _kept.get(rests_on, None, choose)


def channels_left(design: Design, catalogue: Catalogue) -> BandPlan:
    """Return the channels that access points are planned on: those of the site without those of lines."""
    bands, lines = _outdoors(design, catalogue), line_channels(design, catalogue).values()
    gone = frozenset(c for row in lines for c in bands.block("5", row.width_mhz, row.channel))
    return band_plan_of(design.site, catalogue, gone)


def _outdoors(design: Design, catalogue: Catalogue) -> BandPlan:
    """Return the channels that a line may have: those for radar too, it leaves them by itself."""
    return band_plan(catalogue.rules, design.site.domain, design.site.channels_149_up)


def _one(design: Design, catalogue: Catalogue, point: FarPoint, number: int) -> LineChannel:
    rules, site = catalogue.rules, design.site
    bands, width = _outdoors(design, catalogue), int(rules["far.line_mhz"])
    most = rules.table(f"far.link_eirp_dbm.{site.domain}")["5"]
    blocks = bands.primaries("5", width) or bands.planned["5"]
    caps = {c: min(most, bands.eirp_cap_dbm("5", c)) for c in blocks}
    best = [c for c in blocks if caps[c] == max(caps.values())]
    order = sorted(best, key=lambda c: (bands.needs_radar_watch("5", c), -c))
    channel, again = order[number % len(order)], number >= len(order)
    set_there = [
        design.of(Device)[r.device].name
        for r in design.of(Radio).values()
        if r.band == "5"
        and r.channel is not None
        and bands.met_by("5", width, channel, r.channel, site.width_5ghz_mhz)
    ]
    words = "kept out of the plan's air"
    if again:
        words = "another line has it, too: no block is left for this one alone"
    elif set_there:
        verb = "is" if len(set_there) == 1 else "are"
        words = f"{some(set_there)} {verb} set to it by hand: let the plan choose theirs"
    return LineChannel(
        point=point.id,
        name=point.name,
        channel=channel,
        width_mhz=width,
        clear=not set_there and not again,
        radar=bands.needs_radar_watch("5", channel),
        words=f"{words}; EIRP up to {caps[channel]:g} dBm",
    )
