"""Copies of what was chosen: under ids and names of their own, no wall twice on the same line."""

from __future__ import annotations

import itertools
import re
from collections.abc import Iterator, Mapping
from typing import Any

import shapely
from shapely.geometry import LineString

from ..catalogue import Catalogue
from ..design import KINDS, Change, Design, DesignError, Device, Element, Floor, Opening, Problem, Wall, put
from ..walling import JOIN_M
from .images import Image

_STEMS = {"space": "room", "equipment_room": "rack"}
_NUMBERED = re.compile(r"^(.*?)(\d+)$", re.DOTALL)


class Copier:
    """Makes copies of things of a design, one set after another."""

    def __init__(self, design: Design, catalogue: Catalogue) -> None:
        self._design = design
        self._catalogue = catalogue
        self._ids = {kind: set(rows) for kind, rows in design.tables.items()}
        self._names = {
            kind: {getattr(e, "name", "") for e in rows.values()} for kind, rows in design.tables.items()
        }
        self._walls: dict[str, list[LineString]] = {}
        for wall in design.of(Wall).values():
            self._walls.setdefault(wall.floor, []).append(LineString([wall.a, wall.b]))

    def copies(
        self,
        picked: Mapping[tuple[str, str], Element],
        image: Image,
        floor: str | None = None,
        keep_names: bool = False,
    ) -> Iterator[Change]:
        """Yield the changes that put an image of things beside them, or on another storey.

        Args:
            keep_names: a name stays as it is where no other has it.

        Raises:
            DesignError: there is no such storey.
        """
        if floor is not None and floor not in self._design.of(Floor):
            raise DesignError([Problem("floor", f"there is no storey {floor[:40]!r} in the plan")])
        hosts: dict[str, str] = {}
        order = list(KINDS)
        for (kind, key), element in sorted(picked.items(), key=lambda row: order.index(row[0][0])):
            fields: dict[str, Any] = {}
            if floor is not None and hasattr(element, "floor"):
                fields["floor"] = floor
            if isinstance(element, Opening):
                host = hosts.get(element.wall)
                if ("wall", element.wall) in picked and host is None:
                    continue  # its wall stands there already
                fields["wall"] = host or element.wall
                if host is None:
                    continue
            copy = image.of(element).model_copy(update=fields)
            if isinstance(copy, Wall):
                if self._stands(copy):
                    continue
                hosts[key] = fields["id"] = self._fresh(kind, copy)
                self._walls.setdefault(copy.floor, []).append(LineString([copy.a, copy.b]))
            else:
                fields["id"] = self._fresh(kind, copy)
            name = getattr(copy, "name", None)
            if name is not None and not (keep_names and self._free(kind, name)):
                fields["name"] = self._named(kind, copy, fields["id"])
            yield put(copy.model_copy(update=fields))

    def _stands(self, wall: Wall) -> bool:
        """Whether walls stand along the whole of one already."""
        own = LineString([wall.a, wall.b])
        there = [line for line in self._walls.get(wall.floor, ()) if line.distance(own) < JOIN_M]
        along = [own.intersection(line.buffer(JOIN_M, cap_style="flat")) for line in there]
        covered = shapely.union_all([a for a in along if a.length > JOIN_M])
        return bool(covered.length >= wall.length_m - 2 * JOIN_M)

    def _stem(self, kind: str, element: Element) -> str:
        if isinstance(element, Device):
            return self._catalogue.role_of(element).stem
        return _STEMS.get(kind, kind.replace("_", "-"))

    def _fresh(self, kind: str, element: Element) -> str:
        stem, taken = self._stem(kind, element), self._ids.setdefault(kind, set())
        key = next(f"{stem}-{n}" for n in itertools.count(1) if f"{stem}-{n}" not in taken)
        taken.add(key)
        return key

    def _free(self, kind: str, name: str) -> bool:
        """Take a name where nothing has it yet."""
        taken = self._names.setdefault(kind, set())
        free = name not in taken
        taken.add(name)
        return free

    def _named(self, kind: str, element: Element, key: str) -> str:
        """Return a name that no other of its kind has: a device's number, the next number of a row."""
        taken = self._names.setdefault(kind, set())
        name: str = getattr(element, "name")  # noqa: B009 - several classes share the field
        numbered = _NUMBERED.match(name)
        stem, first = (numbered[1], int(numbered[2]) + 1) if numbered else (f"{name} ", 2)
        if isinstance(element, Device) and name.startswith(f"{self._catalogue.role_of(element).prefix}-"):
            stem, first = f"{self._catalogue.role_of(element).prefix}-", int(key.rsplit("-", 1)[-1])
        made = next(f"{stem}{n}" for n in itertools.count(first) if f"{stem}{n}" not in taken)
        taken.add(made)
        return made[:120]
