"""Which channels each band has in each domain, and the block of spectrum that each belongs to.

Channel numbers count 5 MHz, from 5000 MHz on 5 GHz and from 5950 MHz on 6 GHz (IEEE 802.11).
Check the national rules in force.
"""

from __future__ import annotations

from functools import cache

from .bands import Band

# 2.4 GHz overlap by distance in channel numbers, 0 to 5 and more.
OVERLAP_24 = (1.0, 0.77, 0.54, 0.31, 0.09, 0.0)
PLANNED_24 = (1, 6, 11)
LAST_24 = {"americas": 11, "europe": 13}
_LOW_5 = (*range(36, 65, 4), *range(100, 145, 4))
_HIGH_5 = (149, 153, 157, 161, 165)
LAST_5_EUROPE = 140  # 144 reaches beyond 5725 MHz
# First channel of every block of a width in MHz.
BLOCKS_5: dict[int, tuple[int, ...]] = {
    40: (36, 44, 52, 60, 100, 108, 116, 124, 132, 140, 149, 157),
    80: (36, 52, 100, 116, 132, 149),
}
LAST_6 = {"americas": 233, "europe": 93}
PREFERRED_6 = tuple(range(5, 230, 16))  # where clients look first
WIDTH_6_MHZ = 80
WIDTHS_MHZ = (80, 40, 20)
Span = tuple[int, int]


@cache
def channels_of(band: Band, domain: str, from_149: bool = False) -> tuple[int, ...]:
    """Return every 20 MHz channel that a radio may be set to.

    Args:
        from_149: whether a person says that 149 and up are open in Europe too.
    """
    if band == "2.4":
        return tuple(range(1, LAST_24[domain] + 1))
    if band == "6":
        return tuple(range(1, LAST_6[domain] + 1, 4))
    if domain == "europe":
        low = tuple(c for c in _LOW_5 if c <= LAST_5_EUROPE)
        return (*low, *_HIGH_5) if from_149 else low
    return (*_LOW_5, *_HIGH_5)


@cache
def block_of(
    band: Band, domain: str, width_mhz: int, primary: int, from_149: bool = False
) -> tuple[int, ...]:
    """Return the channels of the widest legal block, up to a width, that holds a primary.

    A block is legal only if all of it is; a channel outside every such block stands alone.
    """
    legal = channels_of(band, domain, from_149)
    for width in (w for w in WIDTHS_MHZ if 20 < w <= width_mhz and band != "2.4"):
        count = width // 20
        firsts = BLOCKS_5[width] if band == "5" else range(1, LAST_6[domain] + 1, 4 * count)
        for first in firsts:
            block = tuple(range(first, first + 4 * count, 4))
            if primary in block and set(block) <= set(legal):
                return block
    return (primary,)


@cache
def planned_channels(
    band: Band, domain: str, width_mhz: int, from_149: bool = False
) -> tuple[int, ...]:
    """Return the primary channels a plan chooses from, lowest first: one for each block."""
    if band == "2.4":
        return PLANNED_24
    legal = channels_of(band, domain, from_149)
    if domain == "europe" and band == "5":
        legal = tuple(c for c in legal if c < _HIGH_5[0])  # those are for a person to choose
    blocks = {c: block_of(band, domain, width_mhz, c, from_149) for c in legal}
    wide = [c for c, block in blocks.items() if len(block) * 20 == width_mhz]
    if band == "6":
        return tuple(c for c in wide if c in PREFERRED_6)
    return tuple(c for c in wide if blocks[c][0] == c)


@cache
def overlap(
    band: Band, width_mhz: int, first: int, second: int, domain: str = "americas",
    from_149: bool = True,
) -> float:  # fmt: skip
    """Return from 0 to 1 how much of the narrower of two blocks the other one shares."""
    if band == "2.4":
        return OVERLAP_24[min(abs(first - second), 5)]
    one, other = (set(block_of(band, domain, width_mhz, c, from_149)) for c in (first, second))
    return len(one & other) / min(len(one), len(other))


def needs_radar_watch(channel: int) -> bool:
    """Return whether a 5 GHz channel may have to be left to radar (52 to 144)."""
    return 52 <= channel <= 144


def no_such_channel(band: Band, channel: int, domain: str, legal: tuple[int, ...]) -> str:
    """Return the sentence that refuses a channel, with those there are."""
    listed = f"{legal[0]} to {legal[-1]}" if band != "5" else ", ".join(map(str, legal))
    where = {"americas": "the Americas", "europe": "Europe"}[domain]
    return f"channel {channel} is not open on {band} GHz in {where}; it has {listed}."
