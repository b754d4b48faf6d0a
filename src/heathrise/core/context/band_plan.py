"""Which channels each band has in each domain, and the block of spectrum that each belongs to.

Channel numbers count 5 MHz, from 5000 MHz on 5 GHz and from 5950 MHz on 6 GHz (IEEE 802.11).
Check the national rules in force.
"""

from __future__ import annotations

import math
from dataclasses import dataclass, field

from ..base.bands import BANDS, Band
from ..base.memo import IdentityMemo
from ..catalogue import Catalogue, Rules
from ..design import Site

WIDTHS_MHZ = (80, 40, 20)
_WHERE = {"americas": "the Americas", "europe": "Europe"}
_HALF_24 = 2  # numbers of 5 MHz on either side of a channel of 20 MHz


@dataclass(frozen=True, eq=False)
class BandPlan:
    """The channels that one site may use, by band; the same object for the same rules.

    ``planned`` leaves out those that are open only because a person says so.
    """

    rules: Rules
    domain: str
    legal: dict[Band, tuple[int, ...]]
    planned: dict[Band, tuple[int, ...]]
    _blocks: dict[tuple[Band, int, int], tuple[int, ...]] = field(default_factory=dict)
    _overlaps: dict[tuple[Band, int, int, int], float] = field(default_factory=dict)

    def width_6_mhz(self) -> int:
        return int(self.rules["bands.width_6_mhz"])

    def block(self, band: Band, width_mhz: int, primary: int) -> tuple[int, ...]:
        """Return the channels of the widest legal block, up to a width, that holds a primary.

        A block is legal only if all of it is; a channel outside every such block stands alone.
        """
        key = (band, width_mhz, primary)
        if key not in self._blocks:
            self._blocks[key] = self._block(*key)
        return self._blocks[key]

    def _block(self, band: Band, width_mhz: int, primary: int) -> tuple[int, ...]:
        for width in (w for w in WIDTHS_MHZ if 20 < w <= width_mhz and band != "2.4"):
            count = width // 20
            if band == "5":
                firsts = self.rules.lists("bands.blocks_5")[str(width)]
            else:
                firsts = tuple(range(1, max(self.legal["6"]) + 1, 4 * count))
            for first in firsts:
                block = tuple(range(first, first + 4 * count, 4))
                if primary in block and set(block) <= set(self.legal[band]):
                    return block
        return (primary,)

    def reach(self, band: Band, width_mhz: int, primary: int) -> tuple[float, float]:
        """Return where the block of a primary begins and ends, in channel numbers of 5 MHz."""
        if band == "2.4":
            half = _HALF_24 + (width_mhz - 20) / 10
            return primary - half, primary + half
        block = self.block(band, width_mhz, primary)
        return block[0] - 2, block[-1] + 2

    def primaries(self, band: Band, width_mhz: int) -> tuple[int, ...]:
        """Return the primary channels a plan chooses from, lowest first: one for each block."""
        if band == "2.4":
            return self.planned["2.4"]
        blocks = {c: self.block(band, width_mhz, c) for c in self.planned[band]}
        planned = set(self.planned[band])
        wide = [
            c for c, block in blocks.items() if len(block) * 20 == width_mhz and planned.issuperset(block)
        ]
        if band == "6":
            preferred = self.rules.whole_numbers("bands.preferred_6")
            return tuple(c for c in wide if c in preferred)
        return tuple(c for c in wide if blocks[c][0] == c)

    def overlap(self, band: Band, width_mhz: int, first: int, second: int) -> float:
        """Return from 0 to 1 how much of the narrower of two blocks the other one shares."""
        key = (band, width_mhz, first, second)
        if key not in self._overlaps:
            self._overlaps[key] = self._overlap(*key)
        return self._overlaps[key]

    def _overlap(self, band: Band, width_mhz: int, first: int, second: int) -> float:
        if band == "2.4":
            shares = self.rules.numbers("bands.overlap_24")
            apart = abs(first - second)
            return shares[apart] if apart < len(shares) else 0.0
        one, other = (set(self.block(band, width_mhz, c)) for c in (first, second))
        return len(one & other) / min(len(one), len(other))

    def met_by(self, band: Band, width_mhz: int, channel: int, other: int, other_mhz: int) -> float:
        """Return from 0 to 1 how much of the narrower of two blocks, each of a width of its own,
        the other one shares; the other may be on a channel that this domain does not have."""
        if band == "2.4":
            shares = self.rules.numbers("bands.overlap_24")
            wider = (other_mhz - 20) // 10  # a block of 40 MHz reaches four numbers farther
            apart = max(0, abs(channel - other) - wider)
            return shares[apart] if apart < len(shares) else 0.0
        one = set(self.block(band, width_mhz, channel))
        count = other_mhz // 20
        first = other - 4 * (((other - (36 if band == "5" else 1)) // 4) % count)
        if band == "5" and other >= 149:
            first = other - 4 * (((other - 149) // 4) % count)
        two = set(range(first, first + 4 * count, 4))
        return len(one & two) / min(len(one), len(two))

    def needs_radar_watch(self, band: Band, channel: int) -> bool:
        """Return whether a channel may have to be left to radar."""
        first, last = self.rules.whole_numbers("bands.radar_5")
        return band == "5" and first <= channel <= last

    def eirp_cap_dbm(self, band: Band, channel: int | None = None) -> float:
        """Return the EIRP limit in dBm for planning, or that of one channel of 5 GHz; on 6 GHz that
        of the width planned."""
        if band == "5" and channel is not None:
            steps = self.rules.table(f"bands.eirp_5_from_dbm.{self.domain}")
            return next((cap for c, cap in reversed(steps.items()) if channel >= int(c)))
        most = self.rules[f"bands.eirp_dbm.{self.domain}.{band}"]
        if band != "6":
            return most
        # On 6 GHz the density is limited as well, so the cap follows the width.
        per_mhz = self.rules[f"bands.eirp_6_per_mhz_dbm.{self.domain}"]
        return min(most, round(per_mhz + 10 * math.log10(self.width_6_mhz()), 1))

    def refusal(self, band: Band, channel: int) -> str:
        """Return the sentence that refuses a channel, with those there are."""
        legal = self.legal[band]
        listed = f"{legal[0]} to {legal[-1]}" if band != "5" else ", ".join(map(str, legal))
        where = _WHERE.get(self.domain, self.domain)
        return f"channel {channel} is not open on {band} GHz in {where}; it has {listed}."


_plans: IdentityMemo[BandPlan] = IdentityMemo(32, weigh=lambda _: 20_000)


def band_plan(
    rules: Rules,
    domain: str,
    said_open: bool = False,
    radar: bool = True,
    four: bool = False,
    lines: frozenset[int] = frozenset(),
) -> BandPlan:
    """Return the channels of a domain.

    Args:
        said_open: whether a person says that channels are open beyond those of the domain.
        radar: whether channels that may have to be left to radar are planned.
        four: whether four are planned on 2.4 GHz, where the domain has them.
        lines: channels of 5 GHz that radios' lines have, which are not planned while others are left.
    """

    def make() -> BandPlan:
        channels = rules.lists(f"bands.channels.{domain}")
        legal = {band: channels[band] for band in BANDS}
        extra = rules.lists("bands.said_open")[domain] if said_open else ()
        first, last = rules.whole_numbers("bands.radar_5")
        quiet = tuple(c for c in legal["5"] if radar or not first <= c <= last)
        quiet = tuple(c for c in quiet if c not in lines) or quiet
        on_24 = rules.whole_numbers("bands.planned_24_four" if four else "bands.planned_24")
        if not set(on_24) <= set(legal["2.4"]):
            on_24 = rules.whole_numbers("bands.planned_24")
        planned = {**legal, "5": quiet, "2.4": on_24}
        return BandPlan(rules, domain, {**legal, "5": (*legal["5"], *extra)}, planned)

    return _plans.get((rules,), (domain, said_open, radar, four, lines), make)


def band_plan_of(site: Site, catalogue: Catalogue, lines: frozenset[int] = frozenset()) -> BandPlan:
    """Return the channels that a site may use, those of radios' ``lines`` not planned."""
    said = site.channels_149_up, site.radar_channels, site.four_channels_24
    return band_plan(catalogue.rules, site.domain, *said, lines)
