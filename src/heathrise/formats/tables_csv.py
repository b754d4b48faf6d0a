"""Cable schedule and port map as CSV (RFC 4180)."""

from __future__ import annotations

import csv
import io
import re
from collections.abc import Iterable, Sequence

from ..core.base.plain_text import plain
from ..core.context.plan import Plan
from ..core.design import Design, Floor, Switch
from ..core.evaluation.evaluate import Evaluation, evaluate
from ..core.views.labels import project_labels

# A spreadsheet takes a cell that begins so for a formula.
_FORMULA_STARTS = ("=", "+", "-", "@", "\t", "\r")
# Where a semicolon parts cells, what follows one inside a text begins a cell of its own.
_FORMULA_WITHIN = re.compile(r"([;,\t\r\n]\s*)(?=[=+\-@])")
_BYTE_ORDER_MARK = "\ufeff"  # without it a spreadsheet does not take the text for UTF-8


def cable_schedule(design: Design, evaluation: Evaluation) -> str:
    """Return one row for each cable of each run; lengths in m."""
    floors = design.of(Floor)
    header = (
        "run",
        "device",
        "kind",
        "floor",
        "cable",
        "category",
        "speed_mbps",
        "fixed_m",
        "limit_m",
        "horizontal_m",
        "rise_m",
        "drop_m",
        "duct_m",
        "outdoor_m",
        "slack_m",
        "bought_m",
        "hottest_space",
        "hottest_c",
        "verdict",
        "reason",
    )
    rows = (
        (
            run.id,
            run.name,
            run.kind,
            floors[run.floor].name,
            f"{k + 1} of {run.cables}",
            run.category,
            run.speed_mbps,
            run.fixed_m,
            run.limit_m,
            run.horizontal_m,
            run.rise_m,
            run.drop_m,
            run.duct_m,
            run.outdoor_m,
            run.slack_m,
            run.bought_m,
            run.hottest_space,
            run.hottest_c,
            run.verdict,
            run.reason,
        )
        for run in evaluation.runs
        for k in range(run.cables)
    )
    return write_rows(header, rows)


def port_map(design: Design, evaluation: Evaluation) -> str:
    """Return one row for each port of each switch."""
    switches = design.of(Switch)
    profiles = {}
    if evaluation.settings is not None:
        profiles = {(p.switch, p.port): p for p in evaluation.settings.ports}
    header = (
        "switch",
        "port",
        "link",
        "device",
        "speed_mbps",
        "poe_class",
        "powers_device",
        "untagged_vlan",
        "tagged_vlans",
    )
    rows = []
    for port in evaluation.power.ports:
        profile = profiles.get((port.switch, port.port))
        rows.append(
            (
                switches[port.switch].name,
                port.port,
                port.link or "",
                port.name or "",
                port.speed_mbps,
                "" if port.poe_class is None else port.poe_class,
                "yes" if port.feeds else "no",
                (profile.untagged_vlan or "") if profile else "",
                " ".join(map(str, profile.tagged_vlans)) if profile else "",
            )
        )
    return write_rows(header, rows)


def write_cables(_name: str, plan: Plan) -> str:
    return cable_schedule(plan.drawn, evaluate(plan, wait=True))


def write_ports(_name: str, plan: Plan) -> str:
    return port_map(plan.drawn, evaluate(plan, wait=True))


def write_labels(_name: str, plan: Plan) -> str:
    """Return one row for each cable with the labels of its two ends."""
    header = ("label_rack", "label_far", "for", "cable", "rack", "panel", "port")
    rows = ((x.near, x.far, x.name, x.cable, x.rack, x.panel, x.port) for x in project_labels(plan))
    return write_rows(header, rows)


def write_rows(header: Sequence[str], rows: Iterable[Sequence[object]]) -> str:
    """Return a table as text that no spreadsheet takes for formulas."""
    out = io.StringIO(newline="")
    out.write(_BYTE_ORDER_MARK)
    writer = csv.writer(out)
    writer.writerow(header)
    writer.writerows([safe_cell(cell) for cell in row] for row in rows)
    return out.getvalue()


def safe_cell(cell: object) -> object:
    """Return a cell whose text no spreadsheet takes for a formula."""
    if not isinstance(cell, str):
        return cell
    text = _FORMULA_WITHIN.sub(r"\1'", plain(cell))
    return f"'{text}" if text.startswith(_FORMULA_STARTS) else text
