"""The one page that an unpaired phone gets, and what a paired one may do."""

from __future__ import annotations

import contextlib
import secrets
from html import escape
from importlib import resources
from string import Template
from urllib.parse import urlsplit

from flask import Flask, Response, g, redirect, request

from ridgewind.services import pairing
from ridgewind.services.pairing import NotPairedError
from ridgewind.store.errors import StorageError
from ridgewind.store.phones import PhoneRow
from ridgewind.web.context import current
from ridgewind.web.errors import ForbiddenError, LockedError
from ridgewind.web.network import MARK

COOKIE_DAYS = 400
"""As long as browsers keep one."""

MOST_FORM_BYTES = 2000
SAFE_METHODS = {"GET", "HEAD", "OPTIONS"}

MAY_CHANGE = {
    # run and note
    "practice.accept_cautions", "practice.add_session", "practice.end_session",
    "practice.note_take", "stage.tell", "stage.wish", "stage.leave",
    "plan.plan_session", "plan.plan_first_look", "plan.practise_drill",
    "trials.plan_next",
    "outings.note_shot", "outings.add_line", "outings.wave", "outings.file_takes",
    "joined.begin_film",
    # mark
    "decisions.mark", "decisions.choose",
    # measure, and what only reckons
    "takes.measure_again", "takes.cancel_measuring", "bench.figures", "decisions.render",
    # send
    "uploads.begin", "uploads.put", "uploads.finish", "uploads.drop", "logs.preview_log",
    "logs.keep_log", "logs.join_rig", "examples.say_origin",
    "live.begin", "live.pictures", "live.rates", "live.end",
}  # fmt: skip
"""What a paired phone may change: see, run, note, mark, measure and send; never delete, clear,
restore, settle, or let others in."""

MAY_SEE = {
    "interface", "pair", "status.status", "network.authority",
    # takes, and what is shown of them
    "takes.list_takes", "takes.one_take", "takes.still", "takes.film", "takes.path_of",
    "takes.points_of", "takes.spectrum_of", "takes.subject_of", "takes.pulse",
    "takes.simulated_camera", "many.ids_of", "many.narrowings", "logs.log_of_take",
    "decisions.remedy_details", "decisions.renders_of", "decisions.rendered_film",
    "decisions.windows", "compare.compare",
    # practice
    "plan.list_drills", "figures.drill_figure", "figures.small_figures",
    "practice.list_sessions", "practice.one_session", "practice.matches", "practice.result",
    "practice.slate", "practice.session_alone", "stage.stage", "live.setting",
    "live.simulated_sensor",
    # findings
    "findings.eye", "findings.blind", "trials.list_trials", "trials.one_trial",
    "trials.picked_trial", "limits.limits_of", "limits.endurance_of", "hand.hand",
    "hand.hand_profile", "hand.film", "shot.ways_to_get", "shot.shot_like", "progress.season",
    "progress.what_became_film", "progress.what_was_noted",
    # outings
    "outings.list_outings", "outings.outing", "outings.shot_slate", "outings.takes_of_outing",
    "joined.joined", "joined.better_cut", "joined.used", "joined.film", "joined.film_file",
    "joined.as_pdf", "joined.as_png",
    # how much of a film has arrived, which is asked by HEAD
    "uploads.received",
    # kit
    "kit.whole_kit", "briefs.list_briefs", "bench.preview_film",
}  # fmt: skip
"""What a paired phone reads: what its pages show. Not the archive, nor this computer's folders, nor
files that name them, nor who else is let in."""

NOT_HERE = (
    "A phone may see, run, note, mark, measure and send, and not do this.",
    "Do it on the computer.",
)


def is_network() -> bool:
    """Whether the request came over the network."""
    return bool(request.environ.get(MARK))


def phone() -> PhoneRow | None:
    """The paired phone that asks; None on the computer itself."""
    found: PhoneRow | None = g.get("phone")
    return found


def check() -> Response | None:
    """Let a request of the network through (None), or answer it. Raises ForbiddenError and
    LockedError."""
    service = current()
    if request.host != service.network.host:
        raise ForbiddenError(
            "This Ridgewind is not known by that name.",
            "Open the address on the computer’s screen.",
        )
    with service.read() as db:
        found = service.network.pairing.phone_of(db, request.cookies.get(_cookie_name(), ""))
        if found is not None:
            service.network.came()
            if service.network.pairing.is_news(found):
                with contextlib.suppress(StorageError):  # a full disk keeps no phone out
                    pairing.saw(db, found)
    if found is None:
        return _answer_unpaired()
    g.phone = found
    if request.path == "/pair":
        return _on_to("/field")
    allowed = MAY_SEE if request.method in SAFE_METHODS else MAY_CHANGE
    if request.endpoint is not None and request.endpoint not in allowed:
        raise ForbiddenError(*NOT_HERE, code="not_on_phone")
    return None


def install(app: Flask) -> None:
    """The page's address; reached by unpaired phones alone."""

    @app.route("/pair", methods=["GET", "POST"])
    def pair() -> Response:
        return redirect("/", 303)  # type: ignore[return-value]


def _answer_unpaired() -> Response:
    if request.path != "/pair":
        if request.path.startswith("/api/"):
            raise LockedError(
                "This phone is not paired with this Ridgewind.",
                "Open its address, and enter the code that the computer shows.",
            )
        return _on_to("/pair")
    if request.method != "POST":
        return _page(None)
    if (request.content_length or MOST_FORM_BYTES + 1) > MOST_FORM_BYTES:
        return _page("Enter the six digits.")
    service = current()
    digits = "".join(request.form.get("code", "").split())
    try:
        with service.read() as db:
            key = service.network.pairing.pair(db, digits, request.form.get("name", ""))
    except NotPairedError as error:
        return _page(f"{error.message} {error.hint}")
    answer = _on_to("/field")
    answer.set_cookie(
        _cookie_name(),
        key,
        max_age=COOKIE_DAYS * 24 * 3600,
        secure=True,
        httponly=True,
        samesite="Lax",
    )
    return answer


def _page(fault: str | None) -> Response:
    nonce = secrets.token_urlsafe(12)
    text = resources.files(__package__).joinpath("pair.html").read_text(encoding="utf-8")
    filled = Template(text).substitute(
        nonce=nonce,
        fault="" if fault is None else f'<p role="alert">{escape(fault)}</p>',
    )
    answer = Response(filled, status=200 if fault is None else 403, mimetype="text/html")
    answer.headers["Content-Security-Policy"] = (
        f"default-src 'none'; style-src 'nonce-{nonce}'; script-src 'nonce-{nonce}'; "
        "form-action 'self'; base-uri 'none'; frame-ancestors 'none'"
    )
    answer.headers["Cache-Control"] = "no-store"
    # Without any referrer a browser sends a form from "null", which is nobody's site.
    answer.headers["Referrer-Policy"] = "same-origin"
    return answer


def _on_to(path: str) -> Response:
    answer = redirect(path, 303)
    assert isinstance(answer, Response)
    return answer


def _cookie_name() -> str:
    """Of this listener's own: cookies do not tell ports apart."""
    return f"__Host-ridgewind-{urlsplit(f'//{request.host}').port or 443}"
