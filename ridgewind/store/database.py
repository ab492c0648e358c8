"""Open the library's database, migrate it, and write to it atomically."""

from __future__ import annotations

import secrets
import sqlite3
from collections.abc import Iterator
from contextlib import closing, contextmanager, suppress
from importlib import resources
from pathlib import Path
from typing import Any

from ridgewind.store.errors import (
    BusyError,
    DamagedError,
    MissingReferenceError,
    NewerSchemaError,
    NoRoomError,
    NotFoundError,
    StorageError,
)

Connection = sqlite3.Connection
"""What every function of the store works on; SQLite itself is known here alone."""

_MOMENT = "%Y-%m-%dT%H:%M:%fZ"
NOW = f"strftime('{_MOMENT}', 'now')"
"""The present in SQL, as every moment is kept: ISO 8601 in UTC, so that moments compare as text."""

DAYS_AGO = f"strftime('{_MOMENT}', 'now', ?)"
"""The moment some days ago in SQL; its value is made by `days_ago`."""

BUSY_S = 10.0
"""How long a writer waits for another one (worker and server write to the same library)."""


PASSING: dict[int, type[StorageError]] = {
    sqlite3.SQLITE_BUSY: BusyError,
    sqlite3.SQLITE_LOCKED: BusyError,
    sqlite3.SQLITE_FULL: NoRoomError,
    sqlite3.SQLITE_IOERR: NoRoomError,
    sqlite3.SQLITE_CANTOPEN: NoRoomError,
    sqlite3.SQLITE_READONLY: NoRoomError,
    sqlite3.SQLITE_CORRUPT: DamagedError,
    sqlite3.SQLITE_NOTADB: DamagedError,
}
"""What SQLite says of a file that does not serve. It cannot open, grow or write its side files on a
full disk, and says so in three ways."""


def _translate_error(error: sqlite3.Error | OverflowError) -> Exception:
    """What SQLite says of the file in our own words; all else as it is."""
    if isinstance(error, OverflowError):  # a number that no row can have
        return NotFoundError("entry of that number", 0)
    code = getattr(error, "sqlite_errorcode", None)
    if code == sqlite3.SQLITE_CONSTRAINT_FOREIGNKEY:
        return MissingReferenceError()
    known = None if code is None else PASSING.get(code & 0xFF)
    return error if known is None else known(str(error))


@contextmanager
def translated() -> Iterator[None]:
    """Turn what SQLite says of the file into our own errors; all else goes through."""
    try:
        yield
    except (sqlite3.Error, OverflowError) as error:
        ours = _translate_error(error)
        if ours is error:
            raise
        raise ours from error


class _Cursor(sqlite3.Cursor):
    def execute(self, sql: str, parameters: Any = (), /) -> _Cursor:
        with translated():
            super().execute(sql, parameters)
        return self

    def executemany(self, sql: str, parameters: Any, /) -> _Cursor:
        with translated():
            super().executemany(sql, parameters)
        return self

    def fetchone(self) -> Any:
        with translated():
            return super().fetchone()

    def fetchall(self) -> list[Any]:
        with translated():
            return super().fetchall()

    def __next__(self) -> Any:
        try:  # not `translated`, which costs more than the row
            return _NEXT_ROW(self)
        except (sqlite3.Error, OverflowError) as error:
            ours = _translate_error(error)
            if ours is error:
                raise
            raise ours from error


_NEXT_ROW = sqlite3.Cursor.__next__


class _Connection(sqlite3.Connection):
    """Says in our own words what is wrong with the file."""

    def cursor(self, factory: Any = _Cursor) -> Any:
        return super().cursor(factory)

    def execute(self, sql: str, parameters: Any = (), /) -> sqlite3.Cursor:
        found: sqlite3.Cursor = self.cursor().execute(sql, parameters)
        return found

    def executemany(self, sql: str, parameters: Any, /) -> sqlite3.Cursor:
        found: sqlite3.Cursor = self.cursor().executemany(sql, parameters)
        return found

    def commit(self) -> None:
        with translated():
            super().commit()

    sealed_at: Path | None = None
    """Where the seal stands that the first write breaks."""


def connect(path: Path, *, busy_s: float | None = None) -> sqlite3.Connection:
    """A connection in WAL mode with foreign keys on, rows by name, and no implicit writes. busy_s:
    how long another writer is waited for; None for the usual time.

    Raises StorageError, here and at every use, where the file does not serve.
    """
    with translated():
        connection = sqlite3.connect(
            path,
            timeout=BUSY_S if busy_s is None else busy_s,
            isolation_level=None,
            factory=_Connection,
        )
    connection.sealed_at = seal_path(path)
    try:
        connection.row_factory = sqlite3.Row
        connection.execute("pragma journal_mode = wal")
        connection.execute("pragma foreign_keys = on")
        connection.execute("pragma synchronous = normal")
    except BaseException:
        connection.close()
        raise
    return connection


def days_ago(days: int) -> str:
    """The value that DAYS_AGO takes."""
    return f"-{days} days"


@contextmanager
def opened(path: Path, *, busy_s: float | None = None) -> Iterator[sqlite3.Connection]:
    """A connection that is closed at the end, see `connect`."""
    connection = connect(path, busy_s=busy_s)
    try:
        yield connection
    finally:
        connection.close()


@contextmanager
def atomic(connection: sqlite3.Connection) -> Iterator[None]:
    """The only way to write: all of it or nothing; may be nested. A full disk ends the whole
    transaction at once, however deep it was found in it. Raises StorageError."""
    if connection.in_transaction:
        connection.execute("savepoint nested")
        try:
            yield
        except BaseException:
            if connection.in_transaction:
                connection.execute("rollback to nested")
                connection.execute("release nested")
            raise
        _require_transaction(connection)
        connection.execute("release nested")
        return
    connection.execute("begin immediate")
    if isinstance(connection, _Connection) and connection.sealed_at is not None:
        with suppress(OSError):
            connection.sealed_at.unlink(missing_ok=True)
        connection.sealed_at = None
    try:
        yield
        _require_transaction(connection)
        connection.commit()
    except BaseException:
        connection.rollback()
        raise


def _require_transaction(connection: sqlite3.Connection) -> None:
    """Raises NoRoomError where the file itself ended the transaction, though somebody passed over
    that: nothing that follows may be taken for kept."""
    if not connection.in_transaction:
        raise NoRoomError("the disk was full while this was written")


@contextmanager
def of_one_moment(connection: sqlite3.Connection) -> Iterator[None]:
    """All that is read within is as it was at one moment, whatever is written meanwhile. Nothing is
    written in it."""
    if connection.in_transaction:
        yield
        return
    connection.execute("begin")
    try:
        yield
    finally:
        connection.rollback()


def stamp(path: Path) -> str:
    """What tells one state of the database from another, whoever wrote it."""
    found = []
    for file in (path, path.with_name(f"{path.name}-wal")):
        try:
            about = file.stat()
        except FileNotFoundError:
            continue
        found.append(f"{about.st_mtime_ns:x}.{about.st_size:x}")
    return "-".join(found)


def checkpoint(connection: Connection) -> None:
    """Put what was written into the database file itself; call when all work has ended."""
    connection.execute("pragma wal_checkpoint(truncate)")


def seal_path(path: Path) -> Path:
    return path.with_name(f"{path.name}.seal")


def number_edition(path: Path) -> None:
    """Give a database a number of its own, by which another one that is put in its place is known,
    and put what was written into the file itself. Call when nobody writes any more."""
    with opened(path) as db:
        db.execute(f"pragma user_version = {secrets.randbits(30)}")
        checkpoint(db)


def seal(path: Path, digest: str) -> None:
    """Keep the digest of a database file beside it, until somebody writes to it."""
    seal_path(path).write_text(f"{digest} {_edition(path)}", encoding="ascii")


def seal_of(path: Path) -> str | None:
    """The digest that a database file must have; None where it was written to since then, or where
    another one was put in its place."""
    log = path.with_name(f"{path.name}-wal")
    if log.exists() and log.stat().st_size > 0:
        return None
    try:
        digest, edition = seal_path(path).read_text(encoding="ascii").split()
        return digest if edition == _edition(path) else None
    except (OSError, ValueError):
        return None


def _edition(path: Path) -> str:
    """What tells one edition of a database from another: its size, and its number (bytes 60 to 64
    of the header)."""
    with path.open("rb") as file:
        header = file.read(100)
    return f"{path.stat().st_size}-{header[60:64].hex()}"


def back_up(source: Path, target: Path) -> None:
    """A copy of a database as it is now, though others write to it: SQLite's own way. target must
    not exist; what is half made stays there where this fails. Raises StorageError, also where the
    copy is damaged, as its source then is."""
    with opened(source) as db, translated(), closing(sqlite3.connect(target)) as copy:
        db.backup(copy)
        if [row[0] for row in copy.execute("pragma quick_check(1)")] != ["ok"]:
            raise DamagedError(f"{source.name} is damaged")
        # One file by itself: nobody is to look for side files beside it.
        copy.execute("pragma journal_mode = delete")


def faults(path: Path) -> list[str]:
    """What SQLite finds wrong with a database file; nothing where it is whole.

    A file that is none at all, or that is not there, is wrong too.
    """
    if not path.is_file():
        return ["it is not there"]
    try:
        with opened(path) as db:
            found = [str(row[0]) for row in db.execute("pragma quick_check(20)")]
    except StorageError as error:
        return [str(error)]
    return [] if found == ["ok"] else found


def migrations() -> list[tuple[str, str]]:
    """Names and SQL of all migrations, in order."""
    folder = resources.files("ridgewind.store") / "migrations"
    names = sorted(item.name for item in folder.iterdir() if item.name.endswith(".sql"))
    return [(name, (folder / name).read_text(encoding="utf-8")) for name in names]


def missing(path: Path) -> list[str]:
    """Migrations that a database lacks; all of them where there is none. Raises StorageError."""
    known = [name for name, _ in migrations()]
    if not path.is_file():
        return known
    with opened(path) as db:
        told = db.execute("select 1 from sqlite_master where name = 'migration'").fetchone()
        done = {row["name"] for row in db.execute("select name from migration")} if told else set()
    return [name for name in known if name not in done]


def migrate(connection: sqlite3.Connection, *, up_to: str | None = None) -> list[str]:
    """Apply what is missing, each migration committed with its own record; returns the names.
    up_to: the last one to apply, None for all.

    Raises NewerSchemaError where the library knows migrations that this program does not.
    """
    connection.execute(
        "create table if not exists migration (name text primary key, applied_at text not null)"
    )
    done = {row["name"] for row in connection.execute("select name from migration")}
    known = migrations()
    if unknown := done - {name for name, _ in known}:
        raise NewerSchemaError(
            f"this library was written by a newer Ridgewind (it has {', '.join(sorted(unknown))}); "
            "update Ridgewind, or choose another folder with --data"
        )
    applied = []
    with referring_later(connection):  # tables are made anew
        for name, sql in known:
            if name not in done and (up_to is None or name <= up_to):
                _apply(connection, name, sql)
                applied.append(name)
    return applied


@contextmanager
def referring_later(connection: sqlite3.Connection) -> Iterator[None]:
    """Rows may point at what is not there yet; whoever does that looks himself, in the end, whether
    all of it is. Not within `atomic`."""
    connection.execute("pragma foreign_keys = off")
    try:
        yield
    finally:
        connection.execute("pragma foreign_keys = on")


def _apply(connection: sqlite3.Connection, name: str, sql: str) -> None:
    """One migration with its record, or nothing where it would leave a broken reference."""
    with atomic(connection):
        for statement in _statements(sql):
            connection.execute(statement)
        broken = connection.execute("pragma foreign_key_check").fetchall()
        if broken:
            raise sqlite3.IntegrityError(f"{name} leaves {len(broken)} broken references")
        connection.execute(f"insert into migration (name, applied_at) values (?, {NOW})", (name,))


def _statements(sql: str) -> Iterator[str]:
    """Statements one by one, because executescript would commit an open transaction."""
    text = ""
    for line in sql.splitlines(keepends=True):
        text += line
        if sqlite3.complete_statement(text):
            yield text
            text = ""
