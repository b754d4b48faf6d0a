"""Measured against planned, joined: the fit as changes that put it in force, and those back."""

from __future__ import annotations

from collections.abc import Mapping, Sequence

from pydantic import Field

from ..base.frozen import Frozen
from ..context.effective_rules import in_force
from ..context.plan import Plan
from ..context.readings import Reading
from ..design import Change, Design, Device, OwnFigure, Remove, free_number, put
from ..records import WalkTaken
from ..signal import Calibration, RadioEnvironment, air_of, calibrate, proposed_names

_SPREAD = "signal.deviation_db"
MOST_UNKNOWN = 200


class CalibrationView(Frozen):
    """A fit over all that was measured; ``changes`` put it in force, ``back`` take it back."""

    calibration: Calibration
    walks: tuple[WalkTaken, ...] = ()
    in_force: bool = Field(description="whether the plan goes by what was measured")
    changes: tuple[Change, ...]
    back: tuple[Change, ...]


class Proposed(Frozen):
    """A radio that a file calls by an address, and whose it seems to be."""

    who: str
    count: int
    device: str | None
    name: str | None
    apart_db: float | None = Field(description="how far its levels are from those planned")


def _is_fitted(figure: str) -> bool:
    plain = ("signal.exponent", "signal.wall_scale", "signal.floor_scale", _SPREAD)
    return figure in plain or figure.rpartition(".")[0] == "signal.correction_db"


def listed_air(plan: Plan) -> RadioEnvironment:
    """Return the air of a plan as it is without anything that was measured."""
    design = plan.design
    kept = {k: o for k, o in design.of(OwnFigure).items() if not _is_fitted(o.figure)}
    if len(kept) < len(design.of(OwnFigure)):
        design = Design({**design.tables, "own_figure": kept})
    return air_of(design, in_force(design, plan.shelf))


def calibration_view(plan: Plan, readings: Sequence[Reading]) -> CalibrationView:
    """Return the fit of a plan to what was measured on its site."""
    air = listed_air(plan)
    found = calibrate(air, readings)
    own = {o.figure: o for o in plan.drawn.of(OwnFigure).values() if _is_fitted(o.figure)}
    changes: list[Change] = []
    taken = set(plan.drawn.of(OwnFigure))
    values = {f.figure: f.value for f in found.fitted if f.figure}
    if values:
        values[_SPREAD] = found.after_db
    for figure, value in values.items():
        limits = air.rules.figures[figure]
        least = value if limits.least is None else limits.least
        most = value if limits.most is None else limits.most
        held = round(min(max(value, least), most), 3)
        if figure in own:
            changes.append(put(own[figure].model_copy(update={"value": held})))
            continue
        key = f"measured-{free_number(taken, 'measured')}"
        taken.add(key)
        changes.append(put(OwnFigure(id=key, figure=figure, value=held)))
    back = tuple(Remove(kind="own_figure", id=o.id) for o in own.values())
    return CalibrationView(calibration=found, in_force=bool(own), changes=tuple(changes), back=back)


def proposals(plan: Plan, heard: Mapping[str, Sequence[Reading]]) -> list[Proposed]:
    """Return whose each radio of a file is: as it is called, else whose levels fit best.

    Of more than ``MOST_UNKNOWN`` unknown radios those that were heard most often are looked at.
    """
    air = listed_air(plan)
    devices = air.design.of(Device)
    others = {w: rows for w, rows in heard.items() if rows[0].device not in devices}
    # Of very many unknown radios most are the neighbours'; ours are heard most often.
    often = sorted(others, key=lambda w: -len(others[w]))[:MOST_UNKNOWN]
    unknown = {w: others[w] for w in heard if w in set(often)}
    heard = {w: rows for w, rows in heard.items() if w in unknown or w not in others}
    fits = proposed_names(air, unknown)
    found = []
    for who, rows in heard.items():
        named = rows[0].device if who not in unknown else None
        device, apart = (named, None) if named else fits.get(who, (None, None))
        found.append(
            Proposed(
                who=who,
                count=len(rows),
                device=device,
                name=devices[device].name if device else None,
                apart_db=apart,
            )
        )
    return found
