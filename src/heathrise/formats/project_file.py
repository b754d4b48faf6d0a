"""The project file: a design as documented, versioned JSON.

``{"format": "heathrise-project", "version": 19, "name": ..., "elements": {kind: [element, ...]},
"gear": {shelf: [entry, ...]}}``; the JSON Schema lies beside this module as ``schema/project-19.json``.
``gear`` is what the plan has of the firm's own, so that the file opens where nobody has it.

Version 1 knew no roofs, no margin and no bundles, version 2 no figures of its own, version 3 no brief,
version 4 no neighbours and no schools, version 5 no stairs and no walks, version 6 no year of a building
and no digging, version 7 no mains, extenders or things in racks, version 8 no pinned ports, no way points,
no shortest runs and nothing plugged into a device, version 9 no gear of the firm's own, no disks and no
reduced power, version 11 no practice profile, version 12 no page for guests, no vouchers and no quiet day,
version 13 no pools by hand and no limit for a whole network, version 14 nothing of others in the ground,
version 15 no places on the land, version 16 no ways to them, version 18 no trees that are drawn and of far
places no injectors and no panels: what a file leaves out takes its default. Until version 11 a wireless
name had to say whether it has fast transition; where that is what its network's purpose has anyway, it is by
the practice profile from now on.
"""

from __future__ import annotations

import hashlib
import json
import math
from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from typing import Any, NoReturn

from ..core.base.plain_text import plain_values
from ..core.catalogue import MOST_OWN, Catalogue, Entry, OwnGear, gear_of, ids_of, read_gear, with_gear
from ..core.context.integrity import GEAR_FIELDS, MAX_ELEMENTS, check
from ..core.context.plan import Plan
from ..core.design import KINDS, MANY_LINES, Design, DesignError, Element, Problem, parse_element

FORMAT = "heathrise-project"
VERSION = 19
READS = (1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12, 13, 14, 15, 16, 17, 18, 19)
MAX_BYTES = 20_000_000
MAX_NAME = 120
_MOST_PER_KIND = max(MAX_ELEMENTS.values())
_SHOWN = 20


@dataclass(frozen=True)
class Project:
    """A named design, as it is saved and opened; with gear of the firm's own, where it has some."""

    name: str
    design: Design
    gear: tuple[OwnGear, ...] = ()


def dump_project(project: Project) -> str:
    """Return the project file's text; opened again it gives the same design."""
    elements: dict[str, list[dict[str, Any]]] = {}
    for kind, element in project.design.elements():
        elements.setdefault(kind, []).append(element.model_dump(mode="json"))
    document: dict[str, Any] = {"format": FORMAT, "version": VERSION, "name": project.name}
    document["elements"] = elements
    if project.gear:
        shelves: dict[str, list[dict[str, Any]]] = {}
        for gear in project.gear:
            shelves.setdefault(gear.shelf, []).append(gear.entry)
        document["gear"] = shelves
    return json.dumps(document, indent=1, ensure_ascii=False) + "\n"


def write(name: str, plan: Plan) -> str:
    """Return the project file of what is drawn; whatever becomes of working it out."""
    return dump_project(Project(name, plan.drawn, tuple(gear_of(plan.shelf, _named(plan.drawn)))))


def _named(design: Design) -> Iterator[str]:
    """Yield the ids of all gear that a design has."""
    for kind, field in GEAR_FIELDS:
        for element in design.tables.get(kind, {}).values():
            named = getattr(element, field)
            if named is not None:
                yield named


def load_project(data: bytes | str, catalogue: Catalogue) -> Project:
    """Read a project file and check all of it.

    Gear that came with it and is not in the catalogue is returned with it; what has the name of another
    thing here is given a name of its own.

    Raises:
        DesignError: with the place in the file and what is wrong; nothing is half read.
    """
    document = parse_json(data)
    if document.get("format") != FORMAT:
        refuse("format", f'this is not a project file: "format" should be "{FORMAT}"')
    version = document.get("version")
    if version not in READS or isinstance(version, bool):
        shown = json.dumps(version)[:20]
        reads = f"this program reads {READS[0]} to {VERSION}"
        refuse("version", f"version {shown} cannot be read; {reads}")
    name = document.get("name")
    if not isinstance(name, str) or not 0 < len(name.strip()) <= MAX_NAME:
        refuse("name", f"a name of 1 to {MAX_NAME} characters is needed")
    if unknown := sorted(set(document) - {"format", "version", "name", "elements", "gear"}):
        refuse(unknown[0][:40], "is not a part of a project file")
    gear, renamed = _gear(document.get("gear", {}), catalogue)
    rows = _called(document.get("elements"), renamed)
    design = _elements(_by_purpose(rows) if version < _PRACTICES else rows)
    check(design, with_gear(catalogue, gear))
    return Project(name.strip(), design, tuple(gear))


_PRACTICES = 12


def _by_purpose(rows: object) -> object:
    """Return the elements of an older file without the fast transition that its network has anyway."""
    try:
        purposes = {n["id"]: n["purpose"] for n in rows["network"]}  # type: ignore[index]
        names = [_unsaid(n, purposes) for n in rows["wireless_name"]]  # type: ignore[index]
        return {**rows, "wireless_name": names}  # type: ignore[dict-item]
    except (KeyError, TypeError, AttributeError):  # what is wrong with it is said where it is read
        return rows


def _unsaid(name: dict[str, Any], purposes: Mapping[str, str]) -> dict[str, Any]:
    usual = purposes.get(name["network"]) != "devices"
    if name.get("fast_transition", True) is usual:
        return {**name, "fast_transition": None}
    return {"fast_transition": True, **name}


def _gear(shelves: object, catalogue: Catalogue) -> tuple[list[OwnGear], dict[str, str]]:
    """Return the gear of a file that the catalogue lacks, and by what other name it is called here."""
    if not isinstance(shelves, dict):
        refuse("gear", "should be an object with a list for each shelf")
    found: list[OwnGear] = []
    renamed: dict[str, str] = {}
    known = set(ids_of(catalogue))
    for shelf, rows in shelves.items():
        if not isinstance(rows, list) or len(rows) > MOST_OWN or not all(isinstance(r, dict) for r in rows):
            refuse(f"gear.{shelf[:40]}", f"should be a list of at most {MOST_OWN} entries")
        for index, row in enumerate(rows):
            gear = OwnGear(shelf=shelf, entry={k: v for k, v in row.items() if k != "withdrawn"})
            entry = read_gear(catalogue, gear, f"gear.{shelf[:40]}[{index}].")
            held = next(iter(gear_of(catalogue, [entry.id])), None)
            if held is not None and held.shelf == shelf and _alike(held.entry, entry):
                continue
            if entry.id in known:
                mark = hashlib.sha256(json.dumps(gear.entry, sort_keys=True).encode()).hexdigest()[:6]
                renamed[entry.id] = f"{entry.id[:50]}-{mark}"
                gear = gear.model_copy(update={"entry": {**gear.entry, "id": renamed[entry.id]}})
                if gear.id in known:  # the same came before
                    continue
            known.add(gear.id)
            found.append(gear)
    return found, renamed


def _alike(held: Mapping[str, Any], entry: Entry) -> bool:
    """Whether two entries are the same thing, whatever it costs and is called."""
    other = entry.model_dump(mode="json", exclude_defaults=True, exclude={"withdrawn"})
    return {**held, "price": 0, "label": ""} == {**other, "price": 0, "label": ""}


def _called(rows: object, renamed: Mapping[str, str]) -> object:
    """Return the elements of a file with the names that its gear has here."""
    if not renamed or not isinstance(rows, dict):
        return rows
    for kind, field in GEAR_FIELDS:
        for item in rows.get(kind, ()) if isinstance(rows.get(kind), list) else ():
            if isinstance(item, dict) and item.get(field) in renamed:
                item[field] = renamed[item[field]]
    return rows


def refuse(where: str, what: str) -> NoReturn:
    raise DesignError([Problem(where, what)])


def parse_json(data: bytes | str) -> dict[str, Any]:
    """Return the object that a file holds in JSON.

    Raises:
        DesignError: it is too large, no JSON, or no object.
    """
    if len(data) > MAX_BYTES:
        refuse("file", f"{len(data) / 1e6:.0f} MB; at most {MAX_BYTES / 1e6:.0f} MB can be opened")
    try:
        text = data.decode("utf-8-sig") if isinstance(data, bytes) else data
        document = json.loads(text, parse_constant=_no_constant, parse_float=_finite, object_pairs_hook=once)
    except UnicodeDecodeError as error:
        refuse(f"byte {error.start}", "the file is not UTF-8 text")
    except json.JSONDecodeError as error:
        refuse(f"line {error.lineno}, column {error.colno}", f"not valid JSON: {error.msg}")
    except RecursionError:
        refuse("file", "is nested too deep to be a project file")
    except ValueError as error:
        refuse("file", str(error)[:200])
    if not isinstance(document, dict):
        refuse("file", "a project file is one JSON object")
    return document


def once(pairs: list[tuple[str, Any]]) -> dict[str, Any]:
    """Return the object that the pairs make, its texts without what nothing can show.

    Raises:
        ValueError: a name stands twice, so that one of its values would be lost in silence.
    """
    made = dict(pairs)
    if len(made) < len(pairs):
        names = [name for name, _ in pairs]
        twice = next(name for name in names if names.count(name) > 1)
        raise ValueError(f"holds {twice[:40]!r} twice in one object")
    return plain_values(made, MANY_LINES)


def _no_constant(text: str) -> NoReturn:
    raise ValueError(f"holds {text}, which is not a number that can be drawn")


def _finite(text: str) -> float:
    value = float(text)
    if not math.isfinite(value):
        raise ValueError(f"holds {text[:30]}, which is too large a number")
    return value


def _elements(rows: object) -> Design:
    if not isinstance(rows, dict):
        refuse("elements", "should be an object with a list for each kind of element")
    problems: list[Problem] = []
    tables: dict[str, dict[str, Element]] = {}
    for kind, items in rows.items():
        if kind not in KINDS:
            refuse(f"elements.{kind[:40]}", "is not a kind of element")
        if not isinstance(items, list):
            refuse(f"elements.{kind}", "should be a list")
        if len(items) > _MOST_PER_KIND:
            refuse(f"elements.{kind}", f"{len(items)} elements; at most {_MOST_PER_KIND}")
        table = tables.setdefault(kind, {})
        for index, item in enumerate(items):
            where = f"elements.{kind}[{index}]"
            problems += _read_one(kind, item, where, table)
            if len(problems) >= _SHOWN:
                raise DesignError(problems)
    if problems:
        raise DesignError(problems)
    return Design(tables)


def _read_one(kind: str, item: object, where: str, table: dict[str, Element]) -> list[Problem]:
    if not isinstance(item, dict):
        return [Problem(where, "should be an object")]
    try:
        element = parse_element(kind, item, where)
    except DesignError as error:
        return list(error.problems)
    if element.id in table:
        return [Problem(f"{where}.id", f"{element.id!r} stands twice")]
    table[element.id] = element
    return []


def project_schema() -> dict[str, Any]:
    """Return the JSON Schema of the project file."""
    definitions: dict[str, Any] = {}
    properties: dict[str, Any] = {}
    for kind, cls in KINDS.items():
        schema = cls.model_json_schema(ref_template="#/$defs/{model}")
        definitions.update(schema.pop("$defs", {}))
        definitions[cls.__name__] = schema
        properties[kind] = {"type": "array", "items": {"$ref": f"#/$defs/{cls.__name__}"}}
    return {
        "$schema": "https://json-schema.org/draft/2020-12/schema",
        "title": f"Heathrise project file, version {VERSION}",
        "type": "object",
        "required": ["format", "version", "name", "elements"],
        "additionalProperties": False,
        "properties": {
            "format": {"const": FORMAT},
            "version": {"const": VERSION},
            "name": {"type": "string", "minLength": 1, "maxLength": MAX_NAME},
            "elements": {"type": "object", "additionalProperties": False, "properties": properties},
            "gear": {
                "type": "object",
                "additionalProperties": {"type": "array", "items": {"type": "object"}},
            },
        },
        "$defs": definitions,
    }
