"""Pictures as rows: kept under the digest of what they hold, never changed."""

from __future__ import annotations

import hashlib
from dataclasses import dataclass

from sqlalchemy import Engine, select
from sqlalchemy.dialects.mysql import insert
from sqlalchemy.exc import IntegrityError

from .repository import UnknownProject
from .tables import picture as table
from .unknown import Unknown

_ID_LENGTH = 24


class UnknownPicture(Unknown):
    """There is no picture with this id in the project."""

    what = "picture"


@dataclass(frozen=True)
class Kept:
    """A picture's bytes and what they are."""

    media: str
    data: bytes


class Pictures:
    """The pictures of projects."""

    def __init__(self, engine: Engine) -> None:
        self._engine = engine

    def keep(self, project_id: str, picture: Kept, width_px: int, height_px: int) -> str:
        """Write a picture and return its id; the same picture is kept once.

        Raises:
            UnknownProject: there is no such project.
        """
        key = hashlib.sha256(picture.data).hexdigest()[:_ID_LENGTH]
        row = {
            "project_id": project_id,
            "id": key,
            "media": picture.media,
            "width_px": width_px,
            "height_px": height_px,
            "data": picture.data,
        }
        try:
            with self._engine.begin() as connection:
                fresh = insert(table).values(**row)
                connection.execute(fresh.on_duplicate_key_update(media=picture.media))
        except IntegrityError as error:
            raise UnknownProject(project_id) from error
        return key

    def get(self, project_id: str, key: str) -> Kept:
        """Return a picture.

        Raises:
            UnknownPicture: there is none.
        """
        wanted = select(table.c.media, table.c.data).where(
            table.c.project_id == project_id, table.c.id == key
        )
        with self._engine.connect() as connection:
            row = connection.execute(wanted).first()
        if row is None:
            raise UnknownPicture(key)
        return Kept(row.media, row.data)
