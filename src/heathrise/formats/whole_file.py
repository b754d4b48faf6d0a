"""A whole project in one file: its plan as it was at every revision, what was recorded, pictures, papers.

A zip of ``whole.json``, ``project.json`` (the plan as ``project_file`` writes it, for its own use), and
the bytes of ``pictures/`` and ``papers/``. Keys that are sealed stay where they are.
"""

from __future__ import annotations

import hashlib
import io
import json
import zipfile
from collections.abc import Callable, Sequence
from dataclasses import dataclass, field
from functools import cached_property, reduce
from typing import Annotated, Any

from pydantic import BaseModel, ConfigDict, Field, ValidationError

from ..core.catalogue import Catalogue, OwnGear
from ..core.context.integrity import check
from ..core.context.plan import Plan
from ..core.design import Change, Design, apply
from ..core.records import RECORD_KINDS
from .pictures import read_picture
from .project_file import load_project, once, refuse, write

FORMAT, VERSION = "heathrise-whole-project", 1
MAX_UNPACKED = 300_000_000
MAX_ENTRIES = 6_000
_KEY_LENGTH = 24
_MEDIA = {"image/png": "png", "image/jpeg": "jpg"}
_Text = Annotated[str, Field(max_length=200)]


TakeGear = Callable[[Sequence[OwnGear]], Catalogue]


class _Row(BaseModel):
    model_config = ConfigDict(extra="forbid")


class JournalRow(_Row):
    """A revision: the changes that led to it; ``made`` is UTC, as ISO 8601 says it."""

    revision: Annotated[int, Field(ge=1)]
    made: _Text
    author: Annotated[str, Field(max_length=120)]
    label: Annotated[str, Field(max_length=120)]
    name: Annotated[str, Field(max_length=120)] = ""
    changes: tuple[Change, ...]


class RecordRow(_Row):
    """What was recorded, under the number that it had there."""

    number: Annotated[int, Field(ge=1)]
    kind: _Text
    at: _Text
    author: Annotated[str, Field(max_length=120)]
    written: _Text | None = None
    body: dict[str, Any]


class PictureRow(_Row):
    id: _Text
    media: _Text
    width_px: Annotated[int, Field(ge=1, le=40_000)]
    height_px: Annotated[int, Field(ge=1, le=40_000)]


class PaperRow(_Row):
    id: Annotated[str, Field(pattern=r"^[0-9a-f]{16}$")]
    kind: Annotated[str, Field(max_length=40)]
    name: Annotated[str, Field(max_length=120)]
    revision: Annotated[int, Field(ge=1)]
    made: _Text


class _Held(_Row):
    format: str
    version: int
    name: Annotated[str, Field(min_length=1, max_length=120)]
    journal: tuple[JournalRow, ...]
    records: tuple[RecordRow, ...]
    pictures: tuple[PictureRow, ...]
    papers: tuple[PaperRow, ...]


@dataclass(frozen=True)
class WholeProject:
    """All that is kept of a project but its keys; ``files`` are bytes by the ids of pictures and papers."""

    name: str
    journal: tuple[JournalRow, ...]
    records: tuple[RecordRow, ...] = ()
    pictures: tuple[PictureRow, ...] = ()
    papers: tuple[PaperRow, ...] = ()
    files: dict[str, bytes] = field(default_factory=dict)

    @cached_property
    def design(self) -> Design:
        """The plan as its last revision has it."""
        return reduce(lambda design, row: apply(design, row.changes), self.journal, Design({}))


def pack(whole: WholeProject, plan: Plan) -> bytes:
    """Return a project as one file; ``plan`` is its last state."""
    held = _Held(
        format=FORMAT,
        version=VERSION,
        name=whole.name,
        journal=whole.journal,
        records=whole.records,
        pictures=whole.pictures,
        papers=whole.papers,
    )
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as archive:
        archive.writestr("whole.json", held.model_dump_json(indent=1))
        archive.writestr("project.json", write(whole.name, plan))
        for picture in whole.pictures:
            archive.writestr(_picture_name(picture), whole.files[picture.id], zipfile.ZIP_STORED)
        for paper in whole.papers:
            archive.writestr(f"papers/{paper.id}.pdf", whole.files[paper.id])
    return out.getvalue()


def _picture_name(picture: PictureRow) -> str:
    return f"pictures/{picture.id}.{_MEDIA.get(picture.media, 'bin')}"


def is_whole(data: bytes) -> bool:
    return data[:4] == b"PK\x03\x04"


def unpack(data: bytes, catalogue: Catalogue, take_gear: TakeGear) -> WholeProject:
    """Read a whole project.

    Args:
        take_gear: takes in the gear that the plan brings along, and returns the catalogue with it.

    Raises:
        DesignError: it is none, is damaged, holds too much, or its plan is not valid.
    """
    try:
        with zipfile.ZipFile(io.BytesIO(data)) as archive:
            return _read(archive, catalogue, take_gear)
    except zipfile.BadZipFile:
        refuse("file", "is damaged: it is no whole project that can be read")


def _read(archive: zipfile.ZipFile, catalogue: Catalogue, take_gear: TakeGear) -> WholeProject:
    infos = archive.infolist()
    if len(infos) > MAX_ENTRIES or sum(i.file_size for i in infos) > MAX_UNPACKED:
        refuse("file", f"holds more than {MAX_UNPACKED // 1_000_000} MB or {MAX_ENTRIES:,} files")
    names = {i.filename for i in infos}
    if "whole.json" not in names:
        refuse("file", "is no whole project: whole.json is missing. A plan alone is a project file in JSON")
    try:
        held = _Held.model_validate(json.loads(archive.read("whole.json"), object_pairs_hook=once))
    except ValidationError as error:
        first = error.errors()[0]
        refuse("whole.json", f"{'.'.join(map(str, first['loc']))[:120]}: {first['msg'][:120]}")
    except (ValueError, RecursionError):
        refuse("whole.json", "is no JSON that can be read")
    if held.format != FORMAT or held.version != VERSION:
        refuse("whole.json", f"is of {held.format[:40]} {held.version}; {FORMAT} {VERSION} can be read")
    if [r.revision for r in held.journal] != list(range(1, len(held.journal) + 1)) or not held.journal:
        refuse("journal", "its revisions do not follow one another from 1 on")
    # The plan as its own file has it brings the gear that the firm here may not have.
    if "project.json" in names:
        catalogue = take_gear(load_project(archive.read("project.json"), catalogue).gear)
    files: dict[str, bytes] = {}
    for picture in held.pictures:
        files[picture.id] = _picture(archive, picture)
    for paper in held.papers:
        data = _entry(archive, f"papers/{paper.id}.pdf")
        if not data.startswith(b"%PDF-"):
            refuse(f"papers/{paper.id}.pdf", "is no PDF")
        files[paper.id] = data
    for row in held.records:
        _check_record(row)
    whole = WholeProject(held.name, held.journal, held.records, held.pictures, held.papers, files)
    check(whole.design, catalogue)
    return whole


def _entry(archive: zipfile.ZipFile, name: str) -> bytes:
    try:
        return archive.read(name)
    except KeyError:
        refuse(name, "is missing in the file")


def _picture(archive: zipfile.ZipFile, picture: PictureRow) -> bytes:
    name = _picture_name(picture)
    data = _entry(archive, name)
    if picture.media not in _MEDIA or hashlib.sha256(data).hexdigest()[:_KEY_LENGTH] != picture.id:
        refuse(name, "is not the picture that it says it is")
    read_picture(data)  # in a process of its own: whatever is no picture is refused
    return data


def _check_record(row: RecordRow) -> None:
    kind = RECORD_KINDS.get(row.kind)
    if kind is None:
        refuse(f"records[{row.number}]", f"is of a kind that is not known, {row.kind[:40]!r}")
    try:
        kind.model_validate({**row.body, "author": row.author, "at": row.at})
    except ValidationError as error:
        first = error.errors()[0]
        where = f"records[{row.number}].{'.'.join(map(str, first['loc']))[:80]}"
        refuse(where, first["msg"][:120])
