"""A session in one file, for the day when the computer stays at home: it runs, sounds, shows its
slates and gives its notes back as a file, with nothing else at hand."""

from __future__ import annotations

import json
from html import escape
from importlib import resources
from pathlib import Path
from string import Template

from ridgewind.web.errors import NotReadyError
from ridgewind.web.practice.models import SessionDetail

BUILT = Path(__file__).parent.parent / "static" / "alone"
"""Its script and style; `make build` puts them there."""

NOT_BUILT = ("The interface has not been built.", "Run `make build`, then try again.")
DEGREES = {"fatigue": range(1, 6), "wind": range(4), "tension": range(1, 6)}
"""Of each note that has some."""


def alone(detail: SessionDetail, slates: list[bytes]) -> str:
    """The page. slates: the drawn codes of the takes, in order. Raises NotReadyError."""
    try:
        script = (BUILT / "alone.js").read_text(encoding="utf-8")
        style = next(BUILT.glob("*.css")).read_text(encoding="utf-8")
    except (FileNotFoundError, StopIteration):
        raise NotReadyError(*NOT_BUILT) from None
    page = resources.files(__package__).joinpath("alone.html").read_text(encoding="utf-8")
    held = {"detail": detail.model_dump(mode="json"), "slates": [one.decode() for one in slates]}
    return Template(page).substitute(
        title=escape(f"{detail.session.name} · Ridgewind"),
        style=style,
        script=script.replace("</script", "<\\/script"),
        # In a script no "<" may end it, or begin a comment.
        session=json.dumps(held).replace("<", "\\u003c"),
        **{name: _buttons(name, degrees) for name, degrees in DEGREES.items()},
    )


def _buttons(name: str, degrees: range) -> str:
    return "".join(
        f'<button type="button" data-name="{name}" data-value="{one}">{one}</button>'
        for one in degrees
    )
