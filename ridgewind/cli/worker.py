"""The subcommand `ridgewind worker`: measure and render for a library on another machine."""

from __future__ import annotations

import signal
import threading
from pathlib import Path
from types import FrameType

import click
from filelock import FileLock, Timeout
from platformdirs import user_cache_path

from ridgewind.cli.common import FOLDER, SETTINGS, Refusal


@click.command(context_settings=SETTINGS)
@click.argument("key", type=click.Path(dir_okay=False, path_type=Path))
@click.option("--server", help="Address of the server; else the one in the key.")
@click.option("--queue", help="Address of the broker, redis://…; else the one in the key.")
@click.option("--folder", type=FOLDER, help="Where films are while they are worked on.")
def worker(key: Path, server: str | None, queue: str | None, folder: Path | None) -> None:
    """Measure and render for a library on another machine.

    KEY is the file that Settings, Other computers, saves there. Run this several times to use more
    of a large machine.

    \b
    Examples:
      ridgewind worker ridgewind-worker-1.json
      ridgewind worker ridgewind-worker-1.json --queue redis://192.168.1.20:6379
    """
    from ridgewind.jobs.remote import key_file  # noqa: PLC0415 - so that --help is quick
    from ridgewind.jobs.remote.broker import Broker  # noqa: PLC0415
    from ridgewind.jobs.remote.client import RefusedError, Server  # noqa: PLC0415
    from ridgewind.jobs.remote.leases import VERSION  # noqa: PLC0415
    from ridgewind.jobs.remote.worker import Worker  # noqa: PLC0415

    stopping = threading.Event()

    def stop(_number: int, _frame: FrameType | None) -> None:
        stopping.set()

    signal.signal(signal.SIGTERM, stop)
    signal.signal(signal.SIGINT, stop)
    try:
        told = key_file.read(key)
        address = server or told.server
        if not address:
            raise Refusal(
                "where is the server? This key was made while Ridgewind was closed to the network: "
                "give its address with --server"
            )
        asked = Server(address, told.key, key_file.trusted(told, address))
    except key_file.KeyFileError as error:
        raise Refusal(str(error)) from None
    broker = told.queue if queue is None else queue
    place, lock = _own_place(folder)
    try:
        click.echo(f"Working for {address}  (Ctrl+C stops it)")
        Worker(
            asked,
            place,
            version=VERSION,
            new_broker=(lambda name: Broker(broker, name)) if broker else None,
            tell=click.echo,
            stopping=stopping,
        ).run()
    except RefusedError as error:
        raise Refusal(str(error)) from None
    finally:
        asked.close()
        lock.release()


def _own_place(folder: Path | None) -> tuple[Path, FileLock]:
    """A folder that no other worker uses, emptied by the worker, and the lock that says so."""
    root = folder or user_cache_path("ridgewind", appauthor=False) / "worker"
    root.mkdir(parents=True, exist_ok=True)
    number = 1
    while True:
        lock = FileLock(root / f"{number}.lock", blocking=False)
        try:
            lock.acquire()
        except Timeout:
            number += 1
            continue
        return root / str(number), lock
