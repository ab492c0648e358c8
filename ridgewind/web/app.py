"""create_app: the interface and its API on one library."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, field
from pathlib import Path

from flask import Flask, Response, send_from_directory

from ridgewind.jobs.mover import Mover
from ridgewind.jobs.queue import Queue
from ridgewind.jobs.relocation import Relocation
from ridgewind.jobs.remote.desk import WorkersDesk
from ridgewind.jobs.remote.leases import Leases
from ridgewind.library.library import Library
from ridgewind.library.uploads import Uploads
from ridgewind.services.live import LiveMeters
from ridgewind.services.stages import Stages
from ridgewind.store.jobs import Kind
from ridgewind.web import addresses, crowd, errors, guard
from ridgewind.web.context import EXTENSION, LastArchive, Service
from ridgewind.web.errors import MissingError
from ridgewind.web.network import Network
from ridgewind.web.phones import door
from ridgewind.web.rules import LazyRule

STATIC = Path(__file__).parent / "static"
"""The built front end; `make build` puts it there."""

MOST_BODY_BYTES = 64 << 20
"""Of one request. Films come in pieces; the largest bodies are motion logs."""


@dataclass(frozen=True)
class Config:
    """library: folder of the library, prepared. demo: it holds made clips. key: without which
    nothing is answered; None where nobody else can ask. on_stale: called when a changed brief
    leaves verdicts to be judged again. on_put: called with the kind of work that was asked for.
    on_watch: called when another folder is watched. network: by which it opens to phones; None
    makes one that is never opened by itself. desk: of workers on other machines; None makes one of
    which nothing is taken back by itself. mover: of originals to another disk; None makes one.
    relocation: of the library itself; None makes one that goes nowhere."""

    library: Path
    demo: bool = False
    key: str | None = None
    on_stale: Callable[[], None] = field(default=lambda: None)
    on_put: Callable[[Kind], None] = field(default=lambda _kind: None)
    on_watch: Callable[[], None] = field(default=lambda: None)
    network: Network | None = None
    desk: WorkersDesk | None = None
    mover: Mover | None = None
    relocation: Relocation | None = None


class Application(Flask):
    """Plain Flask: what checks requests against their models comes with the first place that is
    asked for, and looks here for what to call where one does not fit."""

    url_rule_class = LazyRule
    validation_error_callback = staticmethod(errors.validation)


def create_app(config: Config) -> Flask:
    """The application on a prepared library; starts no worker."""
    app = Application("ridgewind", static_folder=None)
    library = Library(config.library)
    app.config["MAX_CONTENT_LENGTH"] = MOST_BODY_BYTES
    queue = Queue(library, on_put=config.on_put)
    app.extensions[EXTENSION] = Service(
        library=library,
        uploads=Uploads(library),
        queue=queue,
        demo=config.demo,
        on_stale=config.on_stale,
        on_watch=config.on_watch,
        network=config.network or Network(library),
        mover=config.mover or Mover(library),
        relocation=config.relocation or Relocation(library),
        desk=config.desk or WorkersDesk(Leases(library, queue, on_kept=config.on_stale)),
        live=LiveMeters(),
        stages=Stages(),
        archived=LastArchive(),
    )
    guard.install(app, key=config.key)
    crowd.install(app)
    errors.handlers(app, config.library)
    addresses.install(app)
    door.install(app)
    _serve_interface(app)
    return app


def _serve_interface(app: Flask) -> None:
    """The built front end; any other address is one of its pages."""

    @app.route("/", defaults={"address": ""})
    @app.route("/<path:address>")
    def interface(address: str) -> Response:
        if address.startswith("api/"):
            raise MissingError("There is nothing at this address.", "Check the address.")
        if address.startswith("assets/"):
            return send_from_directory(STATIC, address, max_age=31_536_000)
        if not (STATIC / "index.html").is_file():
            return Response(
                "The interface has not been built. Run `make build`, then reload this page.",
                status=503,
                mimetype="text/plain",
            )
        if address and (STATIC / address).is_file():
            return send_from_directory(STATIC, address)
        return send_from_directory(STATIC, "index.html", max_age=0)
