"""Kills a migration after each of its steps, from each shape a database has had, and goes on.

    python -m bench.migrations

A process that is ended after a step leaves what it wrote; the next start must go on from there, and
come to the same tables as one that was never ended. Loopback only; bounded in count.
"""

from __future__ import annotations

import multiprocessing
import os
import re
import signal
import sys
from collections.abc import Iterator
from pathlib import Path
from typing import Any

from sqlalchemy import Engine, event, text

from heathrise.store import connect
from heathrise.store.migrate import migrate
from ops.database import Database, running
from ops.machine import ROOT, VAR

SAMPLES = ROOT / "tests" / "samples"
_READS = ("SELECT", "SHOW", "DESCRIBE", "ROLLBACK", "COMMIT")
_MOST_STEPS = 400


def load_sample(engine: Engine, path: Path) -> str:
    """Write a database as an earlier version left it; return the script."""
    script = re.sub(r"^/\*.*?\*/;?\s*$", "", path.read_text("utf-8"), flags=re.M)
    raw = engine.raw_connection()
    cursor = raw.cursor()
    cursor.execute("SET foreign_key_checks = 0")
    for statement in filter(str.strip, re.split(r";\n", script)):
        cursor.execute(statement)
    raw.commit()
    raw.close()
    return script


def shape_of(engine: Engine) -> dict[str, str]:
    """Return how each table is made, keys in the order of their names."""
    with engine.connect() as connection:
        tables = connection.scalars(text("SHOW TABLES")).all()
        made = {t: connection.execute(text(f"SHOW CREATE TABLE `{t}`")).one()[1] for t in tables}
    return {t: "\n".join(sorted(_unnumbered(sql).splitlines())) for t, sql in made.items()}


def _unnumbered(sql: str) -> str:
    """Leave out what the database counts and names by itself, and commas at the ends of lines."""
    return re.sub(r" AUTO_INCREMENT=\d+|,$|_ibfk_\d+", "", sql, flags=re.M)


def migrate_until_killed(url: str, seen_path: str) -> None:
    """Migrate, and end as kill -9 does after the first step that no earlier call has made."""
    seen_file = Path(seen_path)
    seen = set(seen_file.read_text("utf-8").split("\0")) if seen_file.exists() else set()
    engine = connect(url, patient=True)

    @event.listens_for(engine, "after_cursor_execute")
    def made(_c: Any, _u: Any, sql: str, parameters: Any, *_more: Any) -> None:
        step = f"{sql} {parameters}"
        if sql.lstrip().upper().startswith(_READS) or step in seen:
            return
        with seen_file.open("a", encoding="utf-8") as out:
            out.write(step + "\0")
        os.kill(os.getpid(), signal.SIGKILL)

    migrate(engine)


def killed_at_each_step(url: str, seen: Path) -> Iterator[int]:
    """Start a migration again and again, each killed a step later; yield each count of kills."""
    # A server of forks has no threads, whatever whoever calls has.
    context = multiprocessing.get_context("forkserver")
    context.set_forkserver_preload([__name__])  # else each child would import anew all that it needs
    for kills in range(_MOST_STEPS):
        process = context.Process(target=migrate_until_killed, args=(url, str(seen)))
        process.start()
        process.join()
        if process.exitcode == 0:
            return
        if process.exitcode != -signal.SIGKILL:
            raise RuntimeError(f"after {kills} kills it could not go on")
        yield kills + 1
    raise RuntimeError(f"not through after {_MOST_STEPS} kills")


def kills_from(database: Database, sample: Path | None, folder: Path) -> tuple[int, Engine, bool]:
    """Kill a migration at each step from a sample, or from nothing.

    Returns:
        How often it was killed, the database that came of it, and whether its tables are those
        of one that was never killed.
    """
    name = f"kill_{re.sub('[^0-9]', '', sample.name) if sample else 'new'}"
    engines = [connect(database.create(n, fresh=True)) for n in (name, f"{name}_whole")]
    if sample is not None:
        for engine in engines:
            load_sample(engine, sample)
    killed, whole = engines
    migrate(whole)
    seen = folder / f"{name}.steps"
    seen.unlink(missing_ok=True)
    count = sum(1 for _ in killed_at_each_step(database.create(name), seen))
    alike = shape_of(killed) == shape_of(whole)
    whole.dispose()
    return count, killed, alike


def migrations() -> int:
    """Kill at every step from every sample; return how many were not as they should be."""
    wrong = total = 0
    with running(VAR / "bench", durable=False) as database:
        for sample in (None, *sorted(SAMPLES.glob("database-*.sql"))):
            kills, engine, alike = kills_from(database, sample, VAR)
            total += kills
            wrong += not alike
            engine.dispose()
    print(f"Migrations: {total} kills, after each step from {len(list(SAMPLES.glob('*.sql')))}")
    print(f"  samples and from nothing; {wrong} did not come to the tables they should")
    return wrong


if __name__ == "__main__":
    sys.exit(migrations())
