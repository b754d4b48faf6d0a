"""Doors that lie too near under a camera to be seen, and what dazzles one."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence

from ..base.wording import metres, some
from ..catalogue import Catalogue, LensView
from ..context.findings import Cure, Finding, Place
from ..design import Design, Device, apply, put
from .lens import blind_m, far_m
from .seen import CameraView, SeenDoor, views_of

_SPARE_DEG = 1.0


def sight_findings(design: Design, catalogue: Catalogue, views: Sequence[CameraView]) -> Iterator[Finding]:
    """Yield doors outdoors whose ground no camera sees that looks that way, and cameras that look into
    the light."""
    by_door: dict[str, list[tuple[CameraView, SeenDoor]]] = {}
    for view in views:
        for door in view.doors:
            by_door.setdefault(door.opening, []).append((view, door))
    for opening, every in by_door.items():
        # What shows no more than that somebody is there was not hung for this door.
        near = [row for row in every if row[1].level in ("identify", "recognise")]
        films = [row for row in near if _films(design, catalogue, row[0])]
        # A doorbell is there for the face of who rings.
        rung = any(door.face for view, door in near if not _films(design, catalogue, view))
        if films and not rung and not any(door.ground for _, door in films):
            yield _blind(design, catalogue, opening, films)
    for view in views:
        if view.dazzled_by:
            yield _dazzled(design, catalogue, view)


def _films(design: Design, catalogue: Catalogue, view: CameraView) -> bool:
    return catalogue.role_of(design.of(Device)[view.device]).films


def _blind(
    design: Design, catalogue: Catalogue, opening: str, rows: list[tuple[CameraView, SeenDoor]]
) -> Finding:
    view, door = min(rows, key=lambda row: row[1].away_m)
    device = design.of(Device)[view.device]
    lens = catalogue.model_of(device).view
    assert lens is not None
    what = door.name[0].upper() + door.name[1:]
    near, far = view.blind_m, far_m(lens, view.height_m, view.tilt_deg)
    if near is None:
        sees, limit = "sees no ground", None
    elif door.away_m < near:
        sees, limit = f"sees the ground from {metres(near, 1)}", near
    else:
        sees, limit = f"sees the ground to {metres(far, 1)}", round(far, 2)
    only = "only the face" if door.face else "not even a face"
    return Finding(
        id=f"plan-blind-{opening}",
        stage="plan",
        severity="near",
        text=f"{what} is {metres(door.away_m, 1)} from {view.name}, which {sees}: who stands there is blind "
        f"ground, {only} is in its picture.",
        places=(
            Place(kind="opening", id=opening, floor=device.floor, at=door.at),
            Place(kind="device", id=device.id, floor=device.floor, at=device.at),
        ),
        figure=door.away_m,
        limit=limit,
        unit="m",
        rule="a camera that looks to a door sees who stands before it",
        source=catalogue.rules.source("camera.stand_m"),
        used=catalogue.rules.used("camera.stand_m"),
        cures=tuple(_tilted(design, catalogue, view, door, lens)),
    )


def _tilted(
    design: Design, catalogue: Catalogue, view: CameraView, door: SeenDoor, lens: LensView
) -> Iterator[Cure]:
    """Offer the tilt nearest to its own at which the picture holds the ground before a door, with what
    that loses."""
    rules = catalogue.rules
    device = design.of(Device)[view.device]
    down = math.degrees(math.atan2(view.height_m, door.away_m))
    if down > device.tilt_deg:
        tilt = math.ceil(down - lens.up_deg / 2 + _SPARE_DEG)
    else:
        tilt = math.floor(down + lens.up_deg / 2 - _SPARE_DEG)
    if not 0 <= tilt <= rules["camera.most_tilt_deg"]:
        return
    turned = put(device.model_copy(update={"tilt_deg": float(tilt)}))
    ground = blind_m(lens, view.height_m, tilt)
    face = far_m(lens, view.height_m, tilt, rules["camera.face_m"])
    effect = f"sees the ground from {metres(ground, 1)}"
    effect += f", faces to {metres(face, 1)}" if math.isfinite(face) else ", faces without end"
    after = views_of(apply(design, [turned]), catalogue)
    mine = next(v for v in after if v.device == device.id)
    kept = {d.opening for d in mine.doors if d.face}
    lost = [d.name for d in view.doors if d.face and d.opening not in kept]
    effect += f"; spoils: no face at {some(lost)}" if lost else ""
    yield Cure(label=f"Tilt {device.name} to {tilt}°", effect=effect, changes=(turned,))


def _dazzled(design: Design, catalogue: Catalogue, view: CameraView) -> Finding:
    device = design.of(Device)[view.device]
    count = len(view.dazzled_by)
    what = "a window or lamp" if count == 1 else f"{count} windows and lamps"
    return Finding(
        id=f"plan-dazzled-{view.device}",
        stage="plan",
        severity="note",
        text=f"{view.name} looks into the light of {what}"
        f" within {metres(catalogue.rules['camera.dazzle_m'], 0)}: who stands before it is dark. Turn it, or "
        "see that its model evens out strong contrast.",
        places=(Place(kind="device", id=device.id, floor=device.floor, at=device.at),),
        rule="no window and no lamp in a camera's view",
        source=catalogue.rules.source("camera.dazzle_m"),
        used=catalogue.rules.used("camera.dazzle_m"),
    )
