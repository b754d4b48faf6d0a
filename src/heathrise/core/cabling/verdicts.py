"""Findings about cable: runs too long, in the wrong place, of the wrong category, or missing."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from typing import Any

from ..base.wording import metres
from ..catalogue import Catalogue
from ..context.findings import Cure, Finding, Place
from ..context.run_decisions import run_said
from ..design import Design, Device, EquipmentRoom, Extender, put, remove
from ..mains import mains_lines
from .assess import CableChapter
from .beside_mains import mains_findings
from .conduit import duct_findings, rated_findings
from .fibre_cures import run_over_fibre, uplink_over_fibre
from .first_room import first_room
from .led import led_findings
from .limits import CATEGORIES
from .links import LinkVerdict
from .run_cures import Starves, by_cable, pulled
from .runs import RunVerdict, asked_category
from .shared import shared_findings
from .uplinks import UplinkVerdict

_LENGTHS = "cabling.channel_m.6A.1000"  # any of them has the source of all
_REQUIRED = "cabling.required_category"
_RECOMMENDED = "cabling.recommended_category"
_FIBRE_RULE = "fibre loses less than its modules bear, with some kept in hand; its converters keep its pace"


def cable_findings(
    design: Design, catalogue: Catalogue, chapter: CableChapter, starves: Starves = lambda *_: False
) -> Iterator[Finding]:
    """Yield the findings of the cable stage, cures apart that take a search.

    Args:
        starves: whether a device gets too little over a run with these extenders; what that is, who
            knows of power says.
    """
    runs = chapter.runs
    if not design.of(EquipmentRoom):
        text = "No equipment room is placed. Place it where runs begin."
        offered = first_room(design, catalogue)
        if runs or offered:
            yield Finding(
                id="cable-no-room",
                stage="cable",
                severity="not_met" if runs else "note",
                text=f"No run can be drawn: {text[0].lower()}{text[1:]}" if runs else text,
                rule="a star from the equipment room",
                source=catalogue.rules.source(_LENGTHS),
                cures=offered,
            )
        return
    for run in runs:
        device = design.of(Device)[run.device]
        yield from _length(design, catalogue, run, device, starves)
        for finding in _ground(catalogue, run, device):
            surge = finding.id.startswith("cable-surge")
            cures = tuple(run_over_fibre(design, catalogue, run, device, surge=True)) if surge else ()
            yield finding.model_copy(update={"cures": cures})
        yield from _without_use(design, catalogue, run, device)
    for uplink in chapter.uplinks:
        yield from _uplink(design, catalogue, uplink)
    yield from duct_findings(design, catalogue, chapter.links)
    yield from shared_findings(design, catalogue, chapter.links)
    yield from led_findings(design, runs, catalogue.rules)
    yield from rated_findings(design, chapter.links, catalogue.rules)
    yield from mains_findings(catalogue.rules, runs, mains_lines(design))
    yield from _recommended(design, catalogue, runs)


def _finding(
    catalogue: Catalogue, end: Device | EquipmentRoom, key: str, *figures: str, **fields: Any
) -> Finding:
    kind = "device" if isinstance(end, Device) else "equipment_room"
    place = Place(kind=kind, id=end.id, floor=end.floor, at=end.at)
    rules = catalogue.rules
    common = {
        "stage": "cable",
        "places": (place,),
        "source": rules.source(figures[0] if figures else _LENGTHS),
        "used": rules.used(*figures),
    }
    return Finding.model_validate({"id": f"cable-{key}-{end.id}", **common, **fields})


def _length(
    design: Design, catalogue: Catalogue, run: RunVerdict, device: Device, starves: Starves
) -> Iterator[Finding]:
    if run.verdict == "no_way":
        text = f"{run.name}: no run reaches it; {run.reason}. Draw a riser or a duct to its floor."
        yield _finding(
            catalogue,
            device,
            "way",
            severity="not_met",
            text=text,
            rule="every device has a run",
            cures=_over_air(design, catalogue, device),
        )
    elif run.verdict in ("not_met", "test_first"):
        yield _finding(
            catalogue,
            device,
            "length",
            *run.figures,
            severity="not_met",
            text=f"{run.name}: {run.reason}.",
            figure=run.fixed_m,
            limit=run.limit_m,
            unit="m",
            rule="what each category carries, by speed and length",
            cures=_by_school(
                design,
                _over_air(design, catalogue, device),
                by_cable(design, catalogue, run, device, starves),
            ),
            searches_cures=True,
        )
    elif run.verdict == "near" and _below(catalogue, run, device, _REQUIRED):
        yield _finding(
            catalogue,
            device,
            "category",
            f"{_REQUIRED}.{_generation(catalogue, device)}",
            severity="near",
            text=f"{run.name}: {run.reason}.",
            rule="what each generation of access point asks for",
            cures=(_pull(design, catalogue, run, device),),
        )
    elif run.verdict == "near":
        yield _finding(
            catalogue,
            device,
            "length",
            *run.figures,
            severity="near",
            text=f"{run.name}: {run.reason}."
            + (" Measure it before it is promised." if run.medium == "copper" else ""),
            figure=run.fixed_m,
            limit=run.limit_m,
            unit="m",
            rule="fixed run within 5 % of its limit" if run.medium == "copper" else _FIBRE_RULE,
        )


def _without_use(design: Design, catalogue: Catalogue, run: RunVerdict, device: Device) -> Iterator[Finding]:
    """Yield that extenders were put into a run of fibre."""
    there = [e for e in design.of(Extender).values() if e.device == device.id]
    if run.medium == "fibre" and there:
        changes = tuple(remove(e) for e in there)
        cure = Cure(label="Take the extender out", effect="nothing else changes", changes=changes)
        yield _finding(
            catalogue,
            device,
            "extender",
            severity="near",
            text=f"{run.name}: its run is fibre, an extender in it does nothing.",
            rule="extenders are for copper",
            cures=(cure,),
        )


def _generation(catalogue: Catalogue, device: Device) -> str:
    air = catalogue.model_of(device).air
    return air.generation if air is not None else ""


def _pull(design: Design, catalogue: Catalogue, run: RunVerdict, device: Device) -> Cure:
    wanted = asked_category(catalogue.rules, catalogue.model_of(device))
    assert wanted is not None, "a run is below what its device asks for"
    return Cure(label=f"Pull category {wanted}", changes=(pulled(design, run, wanted),))


def _uplink(design: Design, catalogue: Catalogue, uplink: UplinkVerdict) -> Iterator[Finding]:
    rooms = design.of(EquipmentRoom)
    room = rooms[uplink.room or ""]
    if uplink.verdict == "no_way":
        yield _finding(
            catalogue,
            room,
            "way",
            severity="not_met",
            text=f"{uplink.name}: no cable joins the two rooms; {uplink.reason}. Draw a riser or a "
            "duct to its floor.",
            rule="every room has a way up to the one where the line comes in",
        )
        return
    if uplink.verdict != "met":
        cures = uplink_over_fibre(design, uplink) if uplink.medium == "copper" else ()
        yield _finding(
            catalogue,
            room,
            "uplink",
            *uplink.figures,
            severity="near" if uplink.verdict == "near" else "not_met",
            text=f"{uplink.name}: {uplink.reason}.",
            figure=uplink.fixed_m,
            limit=uplink.limit_m,
            unit="m",
            rule="what each medium carries between racks, by speed and length",
            cures=cures,
        )
    for finding in _ground(catalogue, uplink, room):
        surge = finding.id.startswith("cable-surge")
        cures = uplink_over_fibre(design, uplink) if surge else ()
        yield finding.model_copy(update={"cures": cures})


def _below(catalogue: Catalogue, run: RunVerdict, device: Device, table: str) -> bool:
    """Whether an access point's run is of a lesser category than a table has for it."""
    if run.medium == "fibre":
        return False
    wanted = asked_category(catalogue.rules, catalogue.model_of(device), table)
    return wanted is not None and CATEGORIES.index(run.category) < CATEGORIES.index(wanted)


def _by_school(design: Design, by_air: tuple[Cure, ...], by_cable: tuple[Cure, ...]) -> tuple[Cure, ...]:
    """Return cures in the order of the site's school: of cable, or of links over the air."""
    first_air = design.site.back_haul == "mesh"
    return (*by_air, *by_cable) if first_air else (*by_cable, *by_air)


def _over_air(design: Design, catalogue: Catalogue, device: Device) -> tuple[Cure, ...]:
    """Offer an access point its link over the air."""
    if catalogue.model_of(device).air is None:
        return ()
    changed = put(run_said(design, device.id).model_copy(update={"over_air": True}))
    label = f"Link {device.name} over the air"
    effect = "by a mains socket; what a user then gets stands under Mesh"
    return (Cure(label=label, effect=effect, changes=(changed,)),)


def _ground(catalogue: Catalogue, run: LinkVerdict, device: Device | EquipmentRoom) -> Iterator[Finding]:
    rules = catalogue.rules
    if run.wants_surge:
        where = "between two buildings" if run.between_buildings else "that leaves the building"
        yield _finding(
            catalogue,
            device,
            "surge",
            "cabling.surge_outdoor_m",
            severity="near",
            text=(
                f"{run.name}: copper {where} needs surge protection at both ends, "
                "bonded to each building's earth by a licensed electrician. Fibre needs none."
            ),
            figure=run.outside_m,
            unit="m outside",
            rule="copper that leaves a building is protected at both ends",
        )
    if run.jacket in ("outdoor", "ground"):
        jacket = "direct-burial or gel-filled" if run.jacket == "ground" else "outdoor, UV-proof"
        change_m = rules["cabling.jacket_change_m"]
        inside_m = run.fixed_m - run.outside_m
        within = (
            f" {metres(inside_m, 0)} of it lie indoors, where such a jacket may go "
            f"{metres(change_m)} at most: take one rated for both, or change over at the wall."
            if inside_m > change_m
            else ""
        )
        yield _finding(
            catalogue,
            device,
            "jacket",
            "cabling.jacket_change_m",
            severity="note",
            text=f"{run.name}: {metres(run.outside_m, 1)} lie outside; it is ordered with {jacket} "
            f"jacket.{within}",
            figure=run.outside_m,
            limit=change_m,
            unit="m",
            rule="indoor jacket stays indoors",
        )


def _recommended(design: Design, catalogue: Catalogue, runs: Sequence[RunVerdict]) -> Iterator[Finding]:
    below: list[RunVerdict] = []
    for run in runs:
        device = design.of(Device)[run.device]
        if run.verdict in ("met", "near") and _below(catalogue, run, device, _RECOMMENDED):
            below.append(run)
    if not below:
        return
    changes = tuple(pulled(design, run, "6A") for run in below)
    kinds = {_generation(catalogue, design.of(Device)[run.device]) for run in below}
    paths = tuple(f"{_RECOMMENDED}.{kind}" for kind in sorted(kinds))
    bought_m = sum(r.bought_m * r.cables for r in below)
    yield Finding(
        id="cable-recommended",
        stage="cable",
        severity="note",
        text=(
            f"{len(below)} access points on less than category 6A. It carries them now; "
            "6A would carry the next generation too, and the labour is most of the cost."
        ),
        figure=len(below),
        unit="runs",
        rule="6A recommended to access points",
        source=catalogue.rules.source(paths[0]),
        used=catalogue.rules.used(*paths),
        cures=(
            Cure(
                label="Pull category 6A to all of them",
                effect=f"{metres(bought_m, 0)} of 6A instead",
                changes=changes,
            ),
        ),
    )
