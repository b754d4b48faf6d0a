"""The rules and figures of the trade as a document, made from the data they are kept in."""

from __future__ import annotations

from itertools import groupby
from typing import Any

from ..core.catalogue import Figure, Rules, in_words
from ..core.catalogue.files import read

_HEAD = """# Rules and their sources
Made from `src/heathrise/core/catalogue/data` by `heathrise rules`; a test holds the two together.
Figures are planning values: a project or the firm sees them differently in *Figures of the trade*,
and each finding shows the value it rests on and whose it is. Local code and the standard in force
outrank them all.

Where practitioners disagree the default is: wired access points, mesh off; channels and power by
plan; one name on all bands with fast transition; 40 MHz on 5 GHz; the lowest 2.4 GHz power that
serves; two cables to an access point; VLAN equal to the third octet; the purchase rests on rated
power.
"""
_TITLES = {
    "plan": "Plan",
    "camera": "Cameras",
    "signal": "Signal",
    "bands": "Channels and power",
    "cabling": "Cable",
    "power": "Power",
    "rack": "Rack",
    "settings": "Settings",
    "brief": "Brief",
    "order": "Order",
    "install": "Install",
    "far": "Far places",
    "handover": "Hand-over",
}


def rules_document(rules: Rules) -> str:
    """Return the document as Markdown: formulas and judgements first, then every figure."""
    lines = [_HEAD, "## Formulas and judgements", "| rule | module | source |", "|---|---|---|"]
    for row in _formulas():
        modules = ", ".join(f"`{m}`" for m in row["modules"])
        lines.append(f"| {row['rule']} | {modules} | {row['source']} |")
    for discipline, figures in groupby(rules.figures.values(), lambda f: f.path.split(".")[0]):
        lines += ["", f"## {_TITLES[discipline]}", "| figure | value | source |", "|---|---|---|"]
        for _, rows in groupby(figures, lambda f: ".".join(f.path.split(".")[:2])):
            lines.append(_line(rules, list(rows)))
    return "\n".join(lines) + "\n"


def _line(rules: Rules, figures: list[Figure]) -> str:
    """Return one row for a figure, or for all of a table."""
    first = figures[0]
    label = first.label.split(": ")[0]
    source = rules.source(first.path)
    about = f" ({first.about})" if first.about else ""
    path = ".".join(first.path.split(".")[:2])
    if len(figures) == 1 and first.path == path:
        return f"| {label}{about}, `{path}` | {_value(first)} | {source} |"
    values = "; ".join(f"{f.path.removeprefix(path + '.')} {_value(f)}" for f in figures)
    return f"| {label}{about}, `{path}` | {values} | {source} |"


def _value(figure: Figure) -> str:
    return in_words(figure.shipped, figure.unit).replace("\u00a0", " ")


def _formulas() -> list[dict[str, Any]]:
    return list(read("formulas.yaml"))
