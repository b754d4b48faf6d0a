"""One table for each kind of element, made from the fields of its class.

The mapping is by field name and is written here once. References become foreign keys; points,
outlines and short lists become JSON columns; everything else has a column of its own type.
"""

from __future__ import annotations

import re
import types
from typing import Any, Literal, Union, get_args, get_origin

from annotated_types import MaxLen
from pydantic.fields import FieldInfo
from sqlalchemy import (
    JSON,
    Boolean,
    Column,
    Date,
    DateTime,
    Engine,
    ForeignKey,
    ForeignKeyConstraint,
    Integer,
    MetaData,
    String,
    Table,
    Text,
    UniqueConstraint,
    create_engine,
    func,
)
from sqlalchemy.dialects.mysql import DATETIME, DOUBLE, LONGBLOB, LONGTEXT
from sqlalchemy.exc import InterfaceError, SQLAlchemyError
from sqlalchemy.exc import TimeoutError as PoolTimeout

from ..core.context.integrity import REFERENCES
from ..core.design import KINDS, Element

ID_LENGTH = 40
TEXT_LENGTH = 120

metadata = MetaData()

project = Table(
    "project",
    metadata,
    Column("id", String(ID_LENGTH), primary_key=True),
    Column("name", String(TEXT_LENGTH), nullable=False),
    Column("revision", Integer, nullable=False, default=0),
    Column("created", DateTime, nullable=False, server_default=func.now()),
    Column("opened", DATETIME(fsp=6), nullable=False, server_default=func.now(6)),
    Column("archived", Boolean, nullable=False, default=False),
)
journal = Table(
    "journal",
    metadata,
    Column("project_id", String(ID_LENGTH), ForeignKey("project.id", ondelete="CASCADE"), primary_key=True),
    Column("revision", Integer, primary_key=True, autoincrement=False),
    Column("made", DateTime, nullable=False, server_default=func.now()),
    Column("author", String(TEXT_LENGTH), nullable=False),
    Column("label", String(TEXT_LENGTH), nullable=False),
    Column("name", String(TEXT_LENGTH)),
    Column("changes", LONGTEXT, nullable=False),
)
setting = Table(
    "setting",
    metadata,
    Column("name", String(ID_LENGTH), primary_key=True),
    Column("value", Text, nullable=False),
)
job = Table(
    "job",
    metadata,
    Column("id", String(ID_LENGTH), primary_key=True),
    Column("project_id", String(ID_LENGTH), ForeignKey("project.id", ondelete="CASCADE")),
    Column("kind", String(ID_LENGTH), nullable=False),
    Column("state", String(ID_LENGTH), nullable=False),
    Column("done", Integer, nullable=False),
    Column("total", Integer, nullable=False),
    Column("result", LONGTEXT),
    Column("message", Text, nullable=False),
    Column("created", DateTime, nullable=False, server_default=func.now()),
)
record = Table(
    "record",
    metadata,
    Column("number", Integer, primary_key=True, autoincrement=True),
    Column("project_id", String(ID_LENGTH), ForeignKey("project.id", ondelete="CASCADE"), nullable=False),
    Column("kind", String(ID_LENGTH), nullable=False),
    Column("at", DATETIME(fsp=6), nullable=False),
    Column("author", String(TEXT_LENGTH), nullable=False),
    Column("body", LONGTEXT, nullable=False),
    Column("sent", String(ID_LENGTH)),
    Column("written", DATETIME(fsp=6)),
    UniqueConstraint("project_id", "kind", "sent", name="record_said"),
)
picture = Table(
    "picture",
    metadata,
    Column("project_id", String(ID_LENGTH), ForeignKey("project.id", ondelete="CASCADE"), primary_key=True),
    Column("id", String(ID_LENGTH), primary_key=True),
    Column("media", String(ID_LENGTH), nullable=False),
    Column("width_px", Integer, nullable=False),
    Column("height_px", Integer, nullable=False),
    Column("data", LONGBLOB, nullable=False),
)
paper = Table(
    "paper",
    metadata,
    Column("project_id", String(ID_LENGTH), ForeignKey("project.id", ondelete="CASCADE"), primary_key=True),
    Column("id", String(ID_LENGTH), primary_key=True),
    Column("kind", String(ID_LENGTH), nullable=False),
    Column("name", String(TEXT_LENGTH), nullable=False),
    Column("revision", Integer, nullable=False),
    Column("made", DateTime, nullable=False, server_default=func.now()),
    Column("data", LONGBLOB, nullable=False),
)
sealed_key = Table(
    "sealed_key",
    metadata,
    Column("project_id", String(ID_LENGTH), ForeignKey("project.id", ondelete="CASCADE"), primary_key=True),
    Column("of", String(TEXT_LENGTH), primary_key=True),
    Column("token", Text, nullable=False),
    Column("how", String(ID_LENGTH), nullable=False),
    Column("bits", DOUBLE(asdecimal=False), nullable=False),
    Column("parts", Integer, nullable=False),
    Column("made", DATETIME(fsp=6), nullable=False),
    Column("author", String(TEXT_LENGTH), nullable=False),
)
firm_price = Table(
    "firm_price",
    metadata,
    Column("item", String(TEXT_LENGTH), primary_key=True),
    Column("price", DOUBLE(asdecimal=False), nullable=False),
    Column("on", Date, nullable=False),
)
firm = Table(
    "firm",
    metadata,
    Column("id", Integer, primary_key=True, autoincrement=False),
    Column("said", JSON, nullable=False),
    Column("media", String(ID_LENGTH)),
    Column("mark", LONGBLOB),
)
firm_practice = Table(
    "firm_practice",
    metadata,
    Column("id", String(ID_LENGTH), primary_key=True),
    Column("said", JSON, nullable=False),
)
firm_gear = Table(
    "firm_gear",
    metadata,
    Column("id", String(ID_LENGTH * 2), primary_key=True),
    Column("shelf", String(ID_LENGTH), nullable=False),
    Column("entry", LONGTEXT, nullable=False),
    Column("withdrawn", Boolean, nullable=False),
)
firm_figure = Table(
    "firm_figure",
    metadata,
    Column("path", String(TEXT_LENGTH), primary_key=True),
    Column("value", JSON, nullable=False),
)


def _column_type(info: FieldInfo) -> tuple[Any, bool]:
    """Return the column type of a field and whether it may be NULL."""
    annotation: Any = info.annotation
    optional = False
    if get_origin(annotation) in (Union, types.UnionType):
        inner = [a for a in get_args(annotation) if a is not type(None)]
        optional = len(inner) < len(get_args(annotation))
        if len(inner) > 1:  # of several types: as JSON says it
            return JSON(), optional
        annotation = inner[0]
    if get_origin(annotation) is not None and hasattr(annotation, "__metadata__"):
        annotation = get_args(annotation)[0]
    origin = get_origin(annotation)
    if origin is Literal:
        number = all(isinstance(a, int) for a in get_args(annotation))
        return (Integer() if number else String(ID_LENGTH)), optional
    if origin is tuple:
        return JSON(), optional
    plain: dict[Any, Any] = {
        bool: Boolean(),
        int: Integer(),
        float: DOUBLE(asdecimal=False),
        str: String(_longest(info)),
    }
    return plain[annotation], optional


def _longest(info: FieldInfo) -> int:
    """Return the length of a text's column: what its field allows, if that is more than usual."""
    allowed = [m.max_length for m in info.metadata if isinstance(m, MaxLen)]
    return max([TEXT_LENGTH, *allowed])


def _element_table(kind: str, cls: type[Element]) -> Table:
    columns: list[Any] = [
        Column("project_id", String(ID_LENGTH), nullable=False, primary_key=True),
        Column("id", String(ID_LENGTH), nullable=False, primary_key=True),
        Column("placed", Integer, nullable=False),
    ]
    for name, info in cls.model_fields.items():
        if name == "id":
            continue
        single = REFERENCES[kind].get(name, ("", True))
        kind_of_column, optional = _column_type(info)
        if not single[1]:
            kind_of_column = String(ID_LENGTH)
        columns.append(Column(name, kind_of_column, nullable=optional))
    constraints: list[Any] = [ForeignKeyConstraint(["project_id"], ["project.id"], ondelete="CASCADE")]
    for name, (target, many) in REFERENCES[kind].items():
        if not many:
            constraints.append(
                ForeignKeyConstraint(["project_id", name], [f"{target}.project_id", f"{target}.id"])
            )
    return Table(kind, metadata, *columns, *constraints)


ELEMENT_TABLES: dict[str, Table] = {kind: _element_table(kind, cls) for kind, cls in KINDS.items()}

for _table in metadata.tables.values():
    _table.dialect_options["mysql"]["engine"] = "InnoDB"
    _table.dialect_options["mysql"]["charset"] = "utf8mb4"


# A database that is stopped rather than dead takes no more threads than there are connections,
# and none of them for longer than this.
CONNECTIONS = 6
CONNECT_SECONDS = 3
ANSWER_SECONDS = 8
POOL_SECONDS = 2
MAX_PACKET_BYTES = 128 * 2**20


def connect(url: str, patient: bool = False) -> Engine:
    """Return an engine in strict mode; a dropped connection is noticed and replaced.

    ``patient`` sets no limit of time, as a migration of many rows may want.
    """
    limits = {
        "connect_timeout": CONNECT_SECONDS,
        "read_timeout": ANSWER_SECONDS,
        "write_timeout": ANSWER_SECONDS,
    }
    return create_engine(
        url,
        pool_pre_ping=True,
        pool_recycle=1800,
        pool_size=CONNECTIONS,
        max_overflow=0,
        pool_timeout=POOL_SECONDS,
        connect_args={
            "max_allowed_packet": MAX_PACKET_BYTES,
            "init_command": "SET sql_mode='STRICT_ALL_TABLES,NO_ZERO_DATE'",
            **({} if patient else limits),
        },
    )


# What MariaDB and its client say: that the server is not there or went away on the way; that its
# disk is full; that a packet (1153) or a value (1406) is too large.
_NO_SERVER = {1053, 1205, 1213, 1927, 2002, 2003, 2006, 2013, 2055}  # or others hold the rows
_DISK_FULL = {1021, 1114}
_NO_SPACE = re.compile(r"\b(error|errno|Errcode):? ?28\b|No space left", re.IGNORECASE)
_TOO_LARGE = {1153, 1406}
Trouble = Literal["gone", "full", "too_large", "other"]


def trouble_of(error: SQLAlchemyError) -> Trouble:
    """Return what a failed statement says of the database."""
    arguments: tuple[object, ...] = getattr(getattr(error, "orig", None), "args", ())
    code = arguments[0] if arguments else None
    if code in _DISK_FULL or _NO_SPACE.search(str(arguments[1:])):
        return "full"
    if code in _TOO_LARGE:
        return "too_large"
    if isinstance(error, InterfaceError | PoolTimeout) or code in _NO_SERVER:
        return "gone"
    return "other"


def out_of_reach(error: SQLAlchemyError) -> bool:
    """Whether a statement failed for now and may do well later: no server, or no room."""
    return trouble_of(error) in ("gone", "full")
