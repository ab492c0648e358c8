"""create_app: the interface and its API on one library."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, field
from pathlib import Path

from flask import Flask, Response, send_from_directory
from flask_openapi3 import Info, OpenAPI

from ridgewind import __version__
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
from ridgewind.web import crowd, errors, guard
from ridgewind.web.context import EXTENSION, Service
from ridgewind.web.errors import MissingError
from ridgewind.web.findings.hand_routes import api as hand_api
from ridgewind.web.findings.limit_routes import api as limits_api
from ridgewind.web.findings.progress_routes import api as progress_api
from ridgewind.web.findings.routes import api as findings_api
from ridgewind.web.findings.shot_routes import api as shot_api
from ridgewind.web.findings.trial_routes import api as trials_api
from ridgewind.web.kit.bench_routes import api as bench_api
from ridgewind.web.kit.routes import api as kit_api
from ridgewind.web.live.routes import api as live_api
from ridgewind.web.network import Network
from ridgewind.web.phones import door
from ridgewind.web.phones.routes import api as network_api
from ridgewind.web.plan.brief_routes import api as briefs_api
from ridgewind.web.plan.figure_routes import api as figures_api
from ridgewind.web.plan.routes import api as plan_api
from ridgewind.web.practice.routes import api as practice_api
from ridgewind.web.practice.stage_routes import api as stage_api
from ridgewind.web.rules import LazyRule
from ridgewind.web.sequence.joined_routes import api as joined_api
from ridgewind.web.sequence.routes import api as outings_api
from ridgewind.web.settings.keeping_routes import api as keeping_api
from ridgewind.web.settings.routes import api as settings_api
from ridgewind.web.settings.watched_routes import api as watched_api
from ridgewind.web.status_routes import api as status_api
from ridgewind.web.takes.compare_routes import api as compare_api
from ridgewind.web.takes.decision_routes import api as decisions_api
from ridgewind.web.takes.example_routes import api as examples_api
from ridgewind.web.takes.folder_routes import api as folders_api
from ridgewind.web.takes.log_routes import api as logs_api
from ridgewind.web.takes.many_routes import api as many_api
from ridgewind.web.takes.routes import api as takes_api
from ridgewind.web.takes.upload_routes import api as uploads_api
from ridgewind.web.workers.desk_routes import api as workers_api
from ridgewind.web.workers.routes import api as worker_api

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


def create_app(config: Config) -> Flask:
    """The application on a prepared library; starts no worker."""
    app = OpenAPI(
        "ridgewind",
        info=Info(title="Ridgewind", version=__version__),
        validation_error_status=400,
        validation_error_callback=errors.validation,
        doc_ui=False,
        static_folder=None,
    )
    app.url_rule_class = LazyRule
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
    )
    guard.install(app, key=config.key)
    crowd.install(app)
    errors.handlers(app, config.library)
    for api in (
        status_api, uploads_api, takes_api, many_api, decisions_api, compare_api, folders_api,
        examples_api, logs_api, briefs_api, plan_api, figures_api, practice_api, kit_api, bench_api,
        findings_api, trials_api, limits_api, hand_api, progress_api, shot_api, settings_api,
        watched_api, network_api, live_api, stage_api, outings_api,
        joined_api, keeping_api, worker_api, workers_api,
    ):  # fmt: skip
        app.register_api(api)

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
