"""What the visits to the made-up sites brought home: words, wishes, what was found there."""

from __future__ import annotations

from collections.abc import Callable

from ..core.design import (
    ClientGroup,
    Complaint,
    ComplaintKind,
    Device,
    Element,
    LineEntry,
    OldCable,
    Point,
    State,
    Switch,
    UsualRoute,
    Zone,
)

Turned = Callable[[Point], Point]


def as_drawn(point: Point) -> Point:
    return point


def _pains(rows: list[tuple[str, ComplaintKind, Point, str]], at: Turned = as_drawn) -> list[Element]:
    return [
        Complaint(id=f"pain-{k}", floor=floor, kind=kind, at=at(spot), words=words)
        for k, (floor, kind, spot, words) in enumerate(rows, start=1)
    ]


def _groups(rows: list[tuple[str, str, int, int]]) -> list[Element]:
    """Return groups of clients from rooms, kinds, counts and how many wish a wire."""
    return [
        ClientGroup(id=f"who-{k}", space=space, kind=kind, count=count, wired=wired)
        for k, (space, kind, count, wired) in enumerate(rows, start=1)
    ]


def _habits(*rows: tuple[str, str]) -> list[Element]:
    """Return walks that are often taken with a call: out of which room, into which."""
    return [
        UsualRoute(id=f"walk-{k}", from_space=start, to_space=end)
        for k, (start, end) in enumerate(rows, start=1)
    ]


def _found(key: str, floor: str, name: str, model: str, at: Point, height_m: float, state: State) -> Device:
    return Device(
        id=key,
        floor=floor,
        kind="access_point",
        model=model,
        name=name,
        at=at,
        height_m=height_m,
        mount="wall",
        state=state,
    )


def mill_brief(at: Turned, studio: Turned) -> list[Element]:
    """Return the mill's: a router by the door and a repeater that were to serve all of it."""
    return [
        LineEntry(id="line-1", floor="wheel", name="Line, from the lane", at=at((0.2, 8.8))),
        *_pains(
            [
                ("stone", "dead", (1.5, 7.5), "Nothing in the study, I work in the kitchen."),
                ("stone", "drops", (5.5, 7.0), "Calls break off on the stairs."),
                ("granary", "slow", (11.0, 2.0), "Films stop to think, at night above all."),
                ("wheel", "heap", (1.2, 7.6), "Nobody knows what these wires are for."),
                ("bin", "one_device", (2.0, 2.0), "The heating's sender drops off for good."),
            ],
            at,
        ),
        *_groups(
            [
                ("wheel-great-kitchen", "phone", 4, 0),
                ("wheel-great-kitchen", "laptop", 2, 0),
                ("stone-living-room", "television", 1, 1),
                ("stone-living-room", "console", 1, 1),
                ("stone-study", "desk_computer", 1, 1),
                ("stone-study", "storage", 1, 1),
                ("wheel-boot-hall", "doorbell", 1, 1),
                ("studio-painting-room", "laptop", 2, 0),
            ]
        ),
        ClientGroup(id="who-old", space="bin-bedroom-2", kind="sensor", count=3, old=True),
        *_habits(
            ("wheel-great-kitchen", "wheel-mill-terrace"),
            ("stone-study", "wheel-great-kitchen"),
            ("wheel-great-kitchen", "studio-painting-room"),
        ),
        _found("old-1", "wheel", "Old router", "old-router", at((1.4, 8.8)), 1.1, "retire"),
        _found("old-2", "stone", "Repeater", "old-repeater", at((7.7, 8.0)), 0.4, "retire"),
        _found("old-3", "studio", "Studio box", "old-open-box", studio((6.5, 5.7)), 1.0, "unknown"),
        OldCable(
            id="old-cable-1",
            floor="wheel",
            name="Grey cable to the kitchen",
            a=at((1.1, 8.2)),
            b=at((13.0, 8.5)),
            category="5e",
        ),
        OldCable(
            id="old-cable-2",
            floor="wheel",
            name="Telephone wire",
            a=at((0.4, 8.6)),
            b=at((6.0, 0.4)),
            condition="damaged",
            state="retire",
        ),
        Zone(
            id="zone-1",
            floor="granary",
            kind="later",
            name="Guest rooms in the attic's end",
            outline=tuple(map(at, ((8.0, 0.0), (14.0, 0.0), (14.0, 5.0), (8.0, 5.0)))),
            access_points=1,
            outlets=4,
        ),
        Zone(
            id="zone-2",
            floor="stone",
            kind="no_drilling",
            name="Listed fireplace wall",
            outline=tuple(map(at, ((0.0, 0.0), (0.8, 0.0), (0.8, 5.0), (0.0, 5.0)))),
        ),
    ]


def practice_brief(at: Turned) -> list[Element]:
    """Return the practice's: tills that must not fail, and a heap that was taken over."""
    return [
        LineEntry(id="line-1", floor="ground", name="Line, from the pavement", at=at((22.8, 0.4))),
        *_pains(
            [
                ("ground", "slow", (4.0, 2.0), "Cards take for ever when the waiting room fills."),
                ("ground", "dead", (9.0, 7.0), "The tablet shows nothing by the X-ray table."),
                ("flat", "lags", (3.0, 2.0), "My son says the game lags."),
                ("ground", "heap", (21.0, 2.0), "The cupboard is a heap of wires."),
            ],
            at,
        ),
        *_groups(
            [
                ("ground-reception", "till", 2, 2),
                ("ground-reception", "desk_computer", 2, 2),
                ("ground-waiting-room", "phone", 12, 0),
                ("ground-consulting-1", "laptop", 1, 1),
                ("ground-consulting-2", "laptop", 1, 1),
                ("flat-living-room", "television", 1, 1),
                ("flat-living-room", "console", 1, 1),
                ("kennels-dog-kennels", "sensor", 6, 0),
            ]
        ),
        *_habits(("ground-reception", "ground-consulting-2"), ("ground-consulting-1", "flat-kitchen")),
        _found("old-1", "ground", "Desk router", "old-router-ac", at((1.0, 1.0)), 0.9, "unknown"),
        _found("old-2", "ground", "Old ceiling point", "old-ceiling-passive", at((5.5, 8.6)), 2.5, "keep"),
        Switch(
            id="old-switch",
            equipment_room="rack",
            name="Desk switch",
            model="old-switch-100",
            state="unknown",
        ),
        OldCable(
            id="old-cable-1",
            floor="ground",
            name="Blue cable to reception",
            a=at((21.5, 2.0)),
            b=at((0.4, 2.0)),
            category="5",
            condition="good",
        ),
    ]


def school_brief() -> list[Element]:
    """Return the school's: full rooms, and a wing that is to come."""
    return [
        LineEntry(id="line-1", floor="ground", name="Line, main road", at=(37.0, 0.3)),
        *_pains(
            [
                ("ground", "drops", (24.5, 4.0), "It breaks off between the stairs and class."),
                ("upper", "slow", (35.5, 3.0), "Thirty tablets at once and nothing moves."),
                ("pavilion", "dead", (112.0, 4.5), "The pavilion never had any."),
            ]
        ),
        *_groups(
            [
                ("ground-hall", "phone", 160, 0),
                ("upper-theory-class", "laptop", 30, 0),
                ("ground-office", "desk_computer", 1, 1),
                ("ground-staff-room", "laptop", 8, 1),
                ("ground-cafe", "till", 1, 1),
                ("ground-foyer", "doorbell", 1, 1),
                ("upper-control-room", "storage", 1, 1),
            ]
        ),
        *_habits(
            ("ground-staff-room", "upper-theory-class"),
            ("ground-office", "ground-hall"),
            ("ground-cafe", "ground-terrace"),
        ),
        Zone(
            id="zone-1",
            floor="ground",
            kind="later",
            name="New wing, second summer",
            outline=((40.0, 0.0), (52.0, 0.0), (52.0, 8.0), (40.0, 8.0)),
            access_points=3,
            outlets=6,
            cameras=1,
        ),
    ]
