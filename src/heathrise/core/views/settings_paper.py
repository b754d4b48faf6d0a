"""Every setting as it stands on paper: what is as everywhere is told once, what is not by name."""

from __future__ import annotations

import re
from collections.abc import Iterable, Iterator, Sequence

from ..base.frozen import Frozen
from ..context.line_channels import line_channels
from ..context.plan import Plan
from ..context.practice import SaidBy
from ..design import Device, Network, Switch
from .far_taken import taken_ways
from .held import SITE, Setting, held_settings, said_by_name, setting_names

_PORT = re.compile(r"^port\.(\d+)\.(\w+)$")


class PaperRow(Frozen):
    """One setting, or the same of several: what has it, its value in words, why, and whose it is."""

    on: str = ""
    label: str
    value: str
    reason: str
    whose: SaidBy


class PaperPort(Frozen):
    """Ports that follow one another and are set alike; ``numbers`` is such as ``7`` or ``20 to 24``."""

    numbers: str
    name: str
    value: str
    reason: str


class PaperPart(Frozen):
    """A part of the paper: settings of one thing, or the ports of one switch."""

    title: str
    rows: tuple[PaperRow, ...] = ()
    ports: tuple[PaperPort, ...] = ()


def settings_on_paper(plan: Plan) -> tuple[PaperPart, ...]:
    """Return all settings of a plan in the order in which they stand on paper."""
    held, names = held_settings(plan).settings, setting_names(plan)
    parts: dict[str, list[Setting]] = {}
    for row in held:
        parts.setdefault(row.target, []).append(row)
    found = [_part(rows, names) for target, rows in parts.items() if not target.startswith("device/")]
    gear = [row for row in held if row.target.startswith("device/") and not _PORT.match(row.key)]
    found.append(PaperPart(title="Switches and devices", rows=tuple(_shared(gear, names))))
    vlans = {n.vlan: n.name for n in plan.design.of(Network).values()}
    called = {s.id: s.name for s in plan.design.of(Switch).values()}
    called |= {d.id: d.name for d in plan.design.of(Device).values()}
    for target, rows in parts.items():
        ports = tuple(_ports([r for r in rows if _PORT.match(r.key)], vlans))
        if ports:
            name = called[target.removeprefix("device/")]
            found.append(PaperPart(title=f"Ports of {name}", ports=ports))
    if lines := tuple(_lines(plan)):
        found.append(PaperPart(title="Radios' lines over the land", rows=lines))
    return tuple(found)


def _lines(plan: Plan) -> Iterator[PaperRow]:
    """Yield what both ends of each radio's line are set and turned to."""
    channels = line_channels(plan.drawn, plan.catalogue)
    for taken in taken_ways(plan):
        name, line = taken.point.name, taken.line
        if taken.offer is None or line is None or not taken.offer.medium.startswith("radio"):
            continue
        row = channels.get(taken.point.id)
        if row is not None:
            value = f"{row.channel}, {row.width_mhz} MHz"
            yield PaperRow(on=name, label="Channel, both ends", value=value, reason=row.words, whose="plan")
        for at, deg, tilt in (
            ("at the house", line.bearing_deg, line.tilt_deg),
            ("there", line.back_deg, -line.tilt_deg),
        ):
            turned = f"{deg:.0f}° from true north, tilt {tilt:+.1f}°"
            why = "from the drawn places and masts"
            yield PaperRow(on=name, label=f"Turned to, {at}", value=turned, reason=why, whose="plan")


def _part(rows: Sequence[Setting], names: dict[str, str]) -> PaperPart:
    title = {"network": "Network ", "name": "Wireless name "}.get(rows[0].target.split("/")[0], "")
    shown = tuple(
        PaperRow(label=r.label, value=said_by_name(names, r.value), reason=r.reason, whose=r.whose)
        for r in rows
    )
    return PaperPart(title="The site" if rows[0].target == SITE else f"{title}{rows[0].on}", rows=shown)


def _shared(rows: Iterable[Setting], names: dict[str, str]) -> Iterator[PaperRow]:
    """Yield settings of devices, those that several have alike as one row; what each is called is on its
    label and in the list of ports."""
    alike: dict[tuple[str, str, str, SaidBy], list[str]] = {}
    of_key: dict[str, int] = {}
    for row in rows:
        if row.key == "label":
            continue
        of_key[row.label] = of_key.get(row.label, 0) + 1
        key = (row.label, said_by_name(names, row.value), row.reason, row.whose)
        alike.setdefault(key, []).append(row.on)
    for (label, value, reason, whose), on in sorted(alike.items(), key=lambda item: item[0][0]):
        every = len(on) == of_key[label]
        told = on[0] if len(on) == 1 else f"all {len(on)}" if every else f"{len(on)}: {', '.join(on)}"
        yield PaperRow(on=told, label=label, value=value, reason=reason, whose=whose)


def _ports(rows: Iterable[Setting], vlans: dict[int, str]) -> Iterator[PaperPort]:
    """Yield the ports of one switch, neighbours that are called and set alike as one row."""
    by_port: dict[int, dict[str, Setting]] = {}
    for row in rows:
        matched = _PORT.match(row.key)
        assert matched is not None
        by_port.setdefault(int(matched[1]), {})[matched[2]] = row
    run: list[int] = []
    last: tuple[str, str, str] | None = None
    for number in sorted(by_port):
        port = by_port[number]
        now = (str(port["label"].value or ""), _port_words(port, vlans), port["on"].reason)
        if run and (now != last or number != run[-1] + 1):
            assert last is not None
            yield _run(run, last)
            run = []
        run, last = [*run, number], now
    if run and last is not None:
        yield _run(run, last)


def _run(numbers: Sequence[int], said: tuple[str, str, str]) -> PaperPort:
    told = str(numbers[0]) if len(numbers) == 1 else f"{numbers[0]} to {numbers[-1]}"
    return PaperPort(numbers=told, name=said[0], value=said[1], reason=said[2])


def _port_words(port: dict[str, Setting], vlans: dict[int, str]) -> str:
    def called(vlan: object) -> str:
        return f"{vlans[vlan]} ({vlan})" if isinstance(vlan, int) and vlan in vlans else f"VLAN {vlan}"

    if port["on"].value is False:
        return "off"
    untagged, tagged = port["untagged"].value, port["tagged"].value
    words = [f"untagged {called(untagged)}" if untagged is not None else "nothing untagged"]
    if isinstance(tagged, tuple) and tagged:
        words.append(f"tagged {', '.join(called(v) for v in tagged)}")
    words.append("gives power" if port["power"].value else "no power")
    return "; ".join(words)
