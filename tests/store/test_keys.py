"""Keys on a real MariaDB: sealed before they are written, opened by their own file alone."""

from __future__ import annotations

import json
import stat
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path

import pytest
from cryptography.fernet import Fernet
from hypothesis import given
from hypothesis import strategies as st
from sqlalchemy import Engine, text, update

from heathrise.core.design import Design
from heathrise.store import Repository, UnknownProject
from heathrise.store.keys import Keys, UnknownKey
from heathrise.store.tables import sealed_key
from heathrise.store.vault import Vault, VaultError

KEY = "otter-quartz-kiln-lemon"


@pytest.fixture
def kept(repository: Repository, engine: Engine, school: Design, tmp_path: Path) -> tuple[Keys, str, Path]:
    with engine.begin() as connection:
        connection.execute(text("DELETE FROM sealed_key"))
    path = tmp_path / "own" / "sealing.key"
    keys = Keys(engine, Vault(path))
    project = repository.create("Site", school, "me", "made").id
    keys.put(project, "name/ssid-staff", KEY, "words", 40.0, "me")
    return keys, project, path


def test_a_key_comes_back_and_the_database_alone_does_not_tell_it(
    kept: tuple[Keys, str, Path], engine: Engine
) -> None:
    keys, project, path = kept
    assert keys.show(project, "name/ssid-staff") == KEY
    (row,) = keys.all(project).values()
    assert (row.how, row.bits, row.author) == ("words", 40.0, "me") and KEY not in str(row)
    assert stat.S_IMODE(path.stat().st_mode) == 0o600 and stat.S_IMODE(path.parent.stat().st_mode) == 0o700
    with engine.connect() as connection:
        (token,) = connection.scalars(text("SELECT token FROM sealed_key")).all()
    assert "otter" not in token and KEY not in token
    # Plainly opened: what stands there is the library's own token, and nothing else.
    assert json.loads(Fernet(path.read_bytes()).decrypt(token)) == [project, "name/ssid-staff", KEY]


def test_the_last_that_was_made_counts_and_goes_with_its_project(
    kept: tuple[Keys, str, Path], repository: Repository, engine: Engine
) -> None:
    keys, project, _ = kept
    keys.put(project, "name/ssid-staff", "another-one", "typed", 50.0, "Ann")
    assert keys.show(project, "name/ssid-staff") == "another-one" and len(keys.all(project)) == 1
    keys.forget(project, "name/ssid-staff")
    with pytest.raises(UnknownKey):
        keys.show(project, "name/ssid-staff")
    keys.put(project, "account/local", KEY, "words", 40.0, "me")
    repository.remove(project)
    with engine.connect() as connection:
        assert connection.scalar(text("SELECT COUNT(*) FROM sealed_key")) == 0
    with pytest.raises(UnknownProject):
        keys.put(project, "account/local", KEY, "words", 40.0, "me")


def test_one_that_was_moved_in_the_database_opens_nowhere_else(
    kept: tuple[Keys, str, Path], repository: Repository, engine: Engine, school: Design
) -> None:
    keys, _, _ = kept
    other = repository.create("Other", school, "me", "made").id
    with engine.begin() as connection:
        connection.execute(update(sealed_key).values(project_id=other))
    with pytest.raises(VaultError, match="belongs to another project"):
        keys.show(other, "name/ssid-staff")


@pytest.mark.parametrize("spoil", ["gone", "other", "lax", "none", "folder"])
def test_a_key_file_that_will_not_do_is_told_and_never_replaced(
    kept: tuple[Keys, str, Path], spoil: str
) -> None:
    keys, project, path = kept
    words = {
        "gone": "is gone",
        "other": "sealed with another key",
        "lax": "others on this machine can read sealing.key",
        "none": "holds no key",
        "folder": "cannot be used",
    }[spoil]
    if spoil in ("gone", "folder"):
        path.unlink()
    if spoil == "folder":
        path.mkdir(mode=0o700)
    if spoil == "other":
        path.write_bytes(Fernet.generate_key())
    if spoil == "lax":
        path.chmod(0o640)
    if spoil == "none":
        path.write_bytes(b"nothing")
    before = path.read_bytes() if path.is_file() else None
    with pytest.raises(VaultError, match=words) as told:
        keys.show(project, "name/ssid-staff")
    assert KEY not in str(told.value) and str(path.parent) not in str(told.value)
    if spoil != "other":  # a key of another file seals well; what was sealed before stays told
        with pytest.raises(VaultError, match=words):
            keys.put(project, "account/local", KEY, "words", 40.0, "me")
    assert (path.read_bytes() if path.is_file() else None) == before


def test_without_a_file_nothing_is_kept(repository: Repository, engine: Engine, school: Design) -> None:
    project = repository.create("Site", school, "me", "made").id
    with pytest.raises(VaultError, match="--key-file"):
        Keys(engine, Vault()).put(project, "account/local", KEY, "words", 40.0, "me")


def test_of_many_that_begin_at_once_one_makes_the_file(tmp_path: Path) -> None:
    path = tmp_path / "sealing.key"
    with ThreadPoolExecutor(8) as pool:
        tokens = list(pool.map(lambda k: Vault(path).seal("p", "of", f"{k}", True), range(24)))
    assert [Vault(path).open("p", "of", t) for t in tokens] == [f"{k}" for k in range(24)]
    assert [p.name for p in tmp_path.iterdir()] == ["sealing.key"]


@given(st.text(max_size=63), st.text(min_size=1, max_size=40))
def test_any_text_comes_back_as_it_was(tmp_path_factory: pytest.TempPathFactory, key: str, of: str) -> None:
    vault = Vault(tmp_path_factory.getbasetemp() / "any.key")
    token = vault.seal("p", of, key, True)
    assert vault.open("p", of, token) == key
    with pytest.raises(VaultError):
        vault.open("p", f"{of}x", token)
