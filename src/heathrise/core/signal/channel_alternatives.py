"""The channels of one band looked at: what each radio would suffer elsewhere, who may sleep."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import replace

import numpy as np
from pydantic import Field

from ..base.bands import Band
from ..base.frozen import Frozen
from ..design import Change, Device, Neighbour, Radio, Space, put
from .channels import ChannelPlan, ChannelProblem, Solution, channel_task, exchanged
from .radio_environment import RadioEnvironment, band_losses
from .rooms import target_in
from .transmit import overrides


class ChannelChoice(Frozen):
    """What it costs a plan to put one radio on a channel, in dB of shared air."""

    channel: int
    radar: bool
    stays_db: float = Field(description="more than now where all others stay as they are")
    follows_db: float = Field(description="more than now where all others make way")


class Occupied(Frozen):
    """A radio on its channel: the first and last channel number that its block reaches."""

    id: str
    name: str
    channel: int
    first: float
    last: float
    held: bool = False
    level_dbm: float | None = None


class Sleeper(Frozen):
    """A 2.4 GHz radio that may sleep, those that cover for it, and what puts it to sleep."""

    device: str
    name: str
    covers: tuple[str, ...]
    changes: tuple[Change, ...]


class BandView(Frozen):
    """One band: radios and neighbours on their channels, what the plan is worth, what else."""

    band: Band
    width_mhz: int
    options: tuple[int, ...]
    cost_db: float
    bound_db: float
    proven: bool
    searching: bool
    radios: tuple[Occupied, ...]
    neighbours: tuple[Occupied, ...]
    choices: tuple[ChannelChoice, ...] = ()
    sleepers: tuple[Sleeper, ...] = ()


def band_view(
    air: RadioEnvironment, band: Band, plan: ChannelPlan | None, device: str | None = None
) -> BandView:
    """Return a band as it is planned; with a device, what each channel would cost it."""
    task = channel_task(air, band)
    if plan is None:
        return BandView(
            band=band,
            width_mhz=task.width_mhz,
            options=task.options,
            cost_db=0,
            bound_db=0,
            proven=True,
            searching=False,
            radios=(),
            neighbours=_neighbours(air, band),
        )
    said = overrides(air.design)
    radios = []
    for point in air.access_points(band):
        channel = plan.channels[point.id]
        first, last = air.channels.reach(band, task.width_mhz, channel)
        held = said.get((point.id, band))
        radios.append(
            Occupied(
                id=point.id,
                name=point.name,
                channel=channel,
                first=first,
                last=last,
                held=held is not None and held.channel is not None,
            )
        )
    return BandView(
        band=band,
        width_mhz=task.width_mhz,
        options=task.options,
        cost_db=plan.cost_db,
        bound_db=plan.bound_db,
        proven=plan.proven,
        searching=plan.searching,
        radios=tuple(radios),
        neighbours=_neighbours(air, band),
        choices=choices(air, task, plan.channels, device) if device else (),
        sleepers=tuple(sleepers(air)) if band == "2.4" else (),
    )


def _neighbours(air: RadioEnvironment, band: Band) -> tuple[Occupied, ...]:
    """Return the neighbours of a band, each as loud as it was measured loudest."""
    loudest: dict[tuple[str, int], Neighbour] = {}
    for row in air.design.of(Neighbour).values():
        key = (row.name, row.channel)
        if row.band == band and (key not in loudest or row.level_dbm > loudest[key].level_dbm):
            loudest[key] = row
    return tuple(
        Occupied(
            id=n.id,
            name=n.name,
            channel=n.channel,
            level_dbm=n.level_dbm,
            first=(reach := air.channels.reach(band, n.width_mhz, n.channel))[0],
            last=reach[1],
        )
        for n in sorted(loudest.values(), key=lambda n: -n.level_dbm)
    )


def choices(
    air: RadioEnvironment, task: ChannelProblem, channels: Mapping[str, int], device: str
) -> tuple[ChannelChoice, ...]:
    """Return what each channel would cost one radio, all others staying, and all making way."""
    points = [d.id for d in air.access_points(task.band)]
    if device not in points:
        return ()
    row = points.index(device)
    now = tuple(channels[p] for p in points)
    cost_db = task.cost_db(now)
    found = []
    for channel in sorted({*task.options, *air.channels.legal[task.band]}):
        there = (*now[:row], channel, *now[row + 1 :])
        stays = task.cost_db(there)
        held = (*task.fixed[:row], channel, *task.fixed[row + 1 :])
        follows = exchanged(replace(task, fixed=held), Solution(there, stays, 0.0, False)).cost_db
        found.append(
            ChannelChoice(
                channel=channel,
                radar=task.radar(channel),
                stays_db=round(stays - cost_db, 1),
                follows_db=round(follows - cost_db, 1),
            )
        )
    return tuple(found)


def sleepers(air: RadioEnvironment) -> list[Sleeper]:
    """Return 2.4 GHz radios that may sleep together, the least used first.

    Every room keeps the share of its floor that it has by all of them, up to the share that is
    kept when 2.4 GHz is quietened: sensors their target with the margin, others a plain level.
    """
    devices = air.access_points("2.4")
    parts = list(_parts(air, devices))
    if len(devices) < 2 or not parts:
        return []
    # As loud as each is planned: those that stay awake may be turned up again.
    levels = np.concatenate([p[0] for p in parts], axis=1)
    sizes = [p[0].shape[1] for p in parts]
    rooms = np.repeat(np.arange(len(parts)), sizes)
    heard = levels >= np.repeat([p[1] for p in parts], sizes)
    kept = air.rules["signal.quiet_share"]

    def shares(rows: np.ndarray) -> np.ndarray:
        reached = heard[rows].any(axis=0) if rows.any() else np.zeros(heard.shape[1])
        found: np.ndarray = np.bincount(rooms, reached, len(parts)) / sizes
        return found

    awake = np.ones(len(devices), dtype=bool)
    needed = np.minimum(shares(awake), kept)
    loudest = levels.argmax(axis=0)
    used = [int((heard[k] & (loudest == k)).sum()) for k in range(len(devices))]
    found = []
    for k in sorted(range(len(devices)), key=lambda k: used[k]):
        if air.radios[devices[k].id, "2.4"].by_person:
            continue  # a person said how loud it is
        awake[k] = False
        if not (shares(awake) >= needed - 1e-9).all():
            awake[k] = True
            continue
        found.append(k)
    return [_sleeper(air, devices, levels, awake, loudest, k) for k in found]


def _parts(air: RadioEnvironment, devices: list[Device]) -> Iterator[tuple[np.ndarray, float]]:
    """Yield for each room what each 2.4 GHz radio gives at its points, shape (devices, points), and
    what it asks of that band in dBm: its own target with the margin, or a plain level."""
    losses: dict[str, np.ndarray] = {}
    for space in air.design.of(Space).values():
        target = target_in(air, space.use)
        if target is None or not devices:
            continue
        survey = air.terrain.surveys[space.floor]
        if space.floor not in losses:
            losses[space.floor] = np.array(band_losses(air, space.floor, survey, "2.4"))
        client = air.client_in(space.id, "2.4")
        power = np.array([air.lossless_dbm(d, "2.4", "weaker", client) for d in devices])
        levels = power[:, None] - losses[space.floor][:, survey.rooms[space.id]]
        wanted = air.rules["signal.quiet_dbm"]
        if target.band == "2.4":
            over_noise = target.snr_db + air.noise_dbm("2.4") if target.snr_db else -np.inf
            wanted = max(target.first_dbm, over_noise) + air.design.site.margin_db
        yield levels, wanted


def _sleeper(
    air: RadioEnvironment,
    devices: list[Device],
    levels: np.ndarray,
    awake: np.ndarray,
    loudest: np.ndarray,
    k: int,
) -> Sleeper:
    mine = levels[:, loudest == k].copy()
    mine[~awake] = -np.inf
    others = np.bincount(mine.argmax(axis=0), minlength=len(devices))
    names = [devices[j].name for j in np.argsort(others)[::-1] if others[j] > 0][:3]
    said = overrides(air.design).get((devices[k].id, "2.4"))
    radio = said or Radio(id=f"rad-{devices[k].id}-24"[:40], device=devices[k].id, band="2.4")
    asleep = radio.model_copy(update={"on": False, "channel": None})
    return Sleeper(device=devices[k].id, name=devices[k].name, covers=tuple(names), changes=(put(asleep),))
