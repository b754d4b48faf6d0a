"""Cures that take a search: access points moved or added, a second rack, better channels."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterator

from shapely.geometry import Point as ShapelyPoint
from shapely.geometry import Polygon

from ..base.bands import BANDS
from ..base.progress import Progress, always
from ..base.wording import metres
from ..building import mount_height_m
from ..cabling import judge_runs, second_room
from ..context.findings import Cure
from ..context.plan import Plan
from ..context.storeys import spot_within, storeys_of
from ..design import Device, Radio, Space, free_number, put
from ..signal import RoomVerdict, environment_of, judge_rooms, search_longer

_STEPS_M = (1.0, 2.0, 3.5)
_COMPASS = ("north", "north-east", "east", "south-east", "south", "south-west", "west", "north-west")
_NEAREST = 2
_OFFERED = 3
_LONGER_SECONDS = 60.0


def search_cures(plan: Plan, finding_id: str, progress: Progress = always) -> list[Cure]:
    """Return the best cures found for a finding that asks for a search, each tried out.

    Args:
        progress: is told how many of how many have been tried, and says whether to go on; what
            was found by then is returned.
    """
    for prefix, look in _SEARCHES.items():
        if finding_id.startswith(prefix):
            return look(plan, finding_id.removeprefix(prefix), progress)
    return []


def _moves(plan: Plan, key: str, progress: Progress) -> list[Cure]:
    """Move the two nearest access points by up to 3.5 m, or add one in the room.

    Those that mend the room without spoiling another come first.
    """
    design, catalogue = plan.design, plan.catalogue
    space = design.of(Space).get(key)
    if space is None:
        return []
    before = judge_rooms(environment_of(plan))
    start = next(r for r in before if r.space == space.id)
    tried: list[tuple[tuple[int, int, float], Cure]] = []
    candidates = list(_candidates(plan, space))
    for number, (label, device) in enumerate(candidates):
        if not progress(number, len(candidates)):
            break
        after = judge_rooms(environment_of(plan.after([put(device)])))
        room = next(r for r in after if r.space == space.id)
        lost, won = _lost(before, after), _lost(after, before)
        gain = (room.share or 0) - (start.share or 0)
        if gain <= 0.01 or len(won) < len(lost):
            continue
        effect = f"{space.name} {start.share or 0:.0%} to {room.share or 0:.0%}"
        others = [name for name in won if name != space.name]
        if others:
            effect += f"; mends {', '.join(others[:3])}"
        if lost:
            effect += f"; spoils {', '.join(lost[:2])}"
        met = (room.share or 0) >= catalogue.rules["signal.met_share"]
        rank = (int(met) - len(lost), len(won), gain)
        tried.append((rank, Cure(label=label, effect=effect, changes=(put(device),))))
    tried.sort(key=lambda row: row[0], reverse=True)
    return _varied([cure for _, cure in tried])


def _another_room(plan: Plan, key: str, _: Progress) -> list[Cure]:
    """Return a second equipment room that brings a run within reach, if one does."""
    design, catalogue = plan.design, plan.catalogue
    device = design.of(Device).get(key)
    runs = {r.device: r for r in judge_runs(design, catalogue)}
    if device is None or runs[device.id].verdict not in ("not_met", "test_first"):
        return []
    return list(second_room(design, catalogue, runs[device.id], device))


def _longer_search(plan: Plan, key: str, progress: Progress) -> list[Cure]:
    """Return a plan of channels that a longer search finds better, as what a person holds to."""
    design = plan.design
    band = next((b for b in BANDS if b == key), None)
    found = band and search_longer(plan, band, _LONGER_SECONDS, progress)
    if not found or band is None:
        return []
    now, better = found
    if better.cost_db >= now.cost_db:
        return []
    held = {r.device: r for r in design.of(Radio).values() if r.band == band}
    taken, changes = set(design.of(Radio)), []
    for device, channel in better.channels.items():
        radio = held.get(device)
        if radio is None:
            key = f"rd-{free_number(taken, 'rd')}"
            taken.add(key)
            radio = Radio(id=key, device=device, band=band)
        changes.append(put(radio.model_copy(update={"channel": channel})))
    proof = "proven best" if better.proven else f"at best {better.bound_db:.0f} dB"
    effect = f"{now.cost_db:.0f} dB of shared air becomes {better.cost_db:.0f}, {proof}"
    label = f"Hold the channels found on {band} GHz"
    return [Cure(label=label, effect=effect, changes=tuple(changes))]


def _first_places(plan: Plan, _: str, progress: Progress) -> list[Cure]:
    """Return the best places for a first access point: in the middle of each room in turn."""
    design, catalogue = plan.design, plan.catalogue
    rooms = [s for s in design.of(Space).values() if s.use != "none"]
    tried: list[tuple[tuple[int, float], Cure]] = []
    for number, space in enumerate(rooms):
        if not progress(number, len(rooms)):
            break
        for label, device in added_in(plan, space, spot_within(space), []):
            judged = judge_rooms(environment_of(plan.after([put(device)])))
            needed = [r for r in judged if r.verdict != "not_needed"]
            heard = [r for r in needed if (r.share_first or 0) >= catalogue.rules["signal.met_share"]]
            effect = f"reaches {len(heard)} of {len(needed)} rooms"
            rank = len(heard), sum(r.share_first or 0 for r in needed)
            tried.append((rank, Cure(label=label, effect=effect, changes=(put(device),))))
    tried.sort(key=lambda row: row[0], reverse=True)
    return [cure for _, cure in tried[:_OFFERED]]


def _lost(before: list[RoomVerdict], after: list[RoomVerdict]) -> list[str]:
    met = {r.space for r in after if r.verdict in ("met", "not_needed")}
    return [r.name for r in before if r.verdict == "met" and r.space not in met]


def _varied(cures: list[Cure]) -> list[Cure]:
    """Keep the best cure for each access point that it would move or add."""
    kept: dict[str, Cure] = {}
    for cure in cures:
        kept.setdefault(cure.changes[0].id, cure)
    return list(kept.values())[:_OFFERED]


def _candidates(plan: Plan, space: Space) -> Iterator[tuple[str, Device]]:
    design, catalogue = plan.design, plan.catalogue
    aim = spot_within(space)
    points = [d for d in design.of(Device).values() if d.model in catalogue.airs and d.floor == space.floor]
    points.sort(key=lambda d: math.dist(d.at, aim))
    indoors = [
        Polygon(s.outline) for s in design.of(Space).values() if s.floor == space.floor and not s.outdoor
    ]
    for device in points[:_NEAREST]:
        for distance in _STEPS_M:
            for k, name in enumerate(_COMPASS):
                angle = math.radians(45 * k)
                at = (
                    round(device.at[0] + distance * math.sin(angle), 2),
                    round(device.at[1] + distance * math.cos(angle), 2),
                )
                if any(p.covers(ShapelyPoint(at)) for p in indoors):
                    label = f"Move {device.name} {metres(distance)} {name}"
                    yield label, device.model_copy(update={"at": at})
    yield from added_in(plan, space, aim, points)


def added_in(
    plan: Plan, space: Space, at: tuple[float, float], points: list[Device]
) -> Iterator[tuple[str, Device]]:
    """Yield a new access point in the room: of a model used near it that may hang there."""
    design, catalogue = plan.design, plan.catalogue
    taken = set(plan.drawn.of(Device))
    with_air = (r for r in catalogue.roles.values() if catalogue.gives_air(r.kind))
    role = next(with_air)
    number = free_number(taken, role.stem)
    storeys = storeys_of(design)
    models = {m.id: m for m in catalogue.sold(role.kind)}
    near = [models[p.model] for p in points if p.model in models]
    first = design.site.mount_first
    other = "wall" if first == "ceiling" else "ceiling"
    mounts = ("pole", "wall") if space.outdoor else (first, other)
    fitting = [
        m
        for m in (*near, *sorted(models.values(), key=lambda m: m.price))
        if m.outdoor == space.outdoor and set(mounts) & set(m.mounts)
    ]
    if not fitting:
        return
    model = fitting[0]
    mount = next(m for m in mounts if m in model.mounts)
    height_m = mount_height_m(catalogue, mount, storeys.ceiling_m(space, space.floor))
    device = Device.model_validate(
        {
            "id": f"{role.stem}-{number}",
            "floor": space.floor,
            "kind": role.kind,
            "model": model.id,
            "name": f"{role.prefix}-{number}",
            "at": (round(at[0], 2), round(at[1], 2)),
            "height_m": height_m,
            "mount": mount,
        }
    )
    yield f"Add {device.name} in {space.name}", device


# By what a finding's id begins with.
_SEARCHES: dict[str, Callable[[Plan, str, Progress], list[Cure]]] = {
    "signal-room-": _moves,
    "signal-none": _first_places,
    "signal-channel-": _longer_search,
    "signal-neighbour-": _longer_search,
    "cable-length-": _another_room,
}
