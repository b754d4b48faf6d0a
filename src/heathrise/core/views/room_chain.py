"""From the line to a room: the chain of the access point that is strongest where the room is worst."""

from __future__ import annotations

from ..base.frozen import Frozen
from ..context.plan import Plan
from ..design import Device
from ..evaluation.chains import Chain, to_spot
from ..evaluation.evaluate import evaluate
from ..signal import environment_of, heard_at, user_mbps


class RoomChain(Frozen):
    """The chain to a room's worst spot, and what is heard there, dBm; none where no access point with
    a port serves it."""

    space: str
    level_dbm: float | None = None
    chain: Chain | None = None


def room_chain(plan: Plan, space: str) -> RoomChain:
    """Return the chain to a room as its use is judged: on its band, for its weakest client."""
    evaluation = evaluate(plan)
    room = next((r for r in evaluation.rooms if r.space == space), None)
    air = environment_of(plan)
    if room is None or room.band is None or room.worst_at is None or air is None:
        return RoomChain(space=space)
    chains = {chain.device: chain for chain in evaluation.chains.chains}
    heard = heard_at(air, room.floor, room.worst_at)
    mine = [(dbm, device.id) for device, band, dbm in heard if band == room.band]
    level, key = max(mine, default=(0.0, ""))
    if key not in chains:
        return RoomChain(space=space)
    spot = f"air, worst spot of {room.name}, {level:.0f}\u00a0dBm"
    mbps = round(user_mbps(air.rules, level, air.width_mhz(room.band)))
    chain = to_spot(plan.design.of(Device)[key], chains[key], spot, mbps)
    return RoomChain(space=space, level_dbm=round(level, 1), chain=chain)
