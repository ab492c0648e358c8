"""Orders and results as text, for the way to another machine and back.

Nothing of it is ever run or unpickled: numbers, names, and arrays without objects.
"""

from __future__ import annotations

import base64
import io
import json
import struct
import zipfile
import zlib
from dataclasses import asdict
from typing import Any

import numpy as np
from numpy.typing import NDArray
from pydantic import TypeAdapter

from ridgewind.core.clip import Clip
from ridgewind.core.judge.recipe import Recipe
from ridgewind.core.motion import Motion
from ridgewind.core.motion.subject import Mark, Subject, SubjectPath
from ridgewind.core.practice.slate import SlateSeen
from ridgewind.films.measuring import Measured
from ridgewind.films.orders import MeasureOrder, MeasureResult, RenderOrder, RenderResult
from ridgewind.jobs.remote import believable
from ridgewind.store import clips
from ridgewind.store.clips import ClipFactsRow
from ridgewind.store.jobs import Fault

Order = MeasureOrder | RenderOrder
Result = MeasureResult | RenderResult | Fault
"""What came of an order; a Fault where the film cannot be done."""

_RECIPE, _CLIP, _MARKS = TypeAdapter(Recipe), TypeAdapter(Clip), TypeAdapter(tuple[Mark, ...])
MOST_WORDS = 300
"""Letters of each part of a fault."""

MOST_PATH_BYTES = 512 << 20
"""Of a path as it is unpacked; an hour at 60 frames a second is 20 MB."""

UNREADABLE = (
    ValueError, KeyError, TypeError, AttributeError, IndexError, OverflowError, EOFError, OSError,
    MemoryError, NotImplementedError, struct.error, zlib.error, zipfile.BadZipFile, RecursionError,
    SyntaxError,
)  # fmt: skip
"""What the libraries say of text, ZIP files and arrays that are damaged, or made to be so."""

_PLANNED = TypeAdapter(list[tuple[int, int, float]] | None)


class WireError(ValueError):
    """A text is no order, or no result."""


def order_text(order: Order) -> str:
    """An order as text."""
    if isinstance(order, MeasureOrder):
        planned = None
        if order.planned is not None:
            planned = [[*slate, take_s] for slate, take_s in order.planned.items()]
        told: dict[str, Any] = {"background": sorted(order.background), "planned": planned}
        return json.dumps({"measure": told})
    told = {name: getattr(order, name) for name in RenderOrder.__dataclass_fields__}
    told |= {
        "recipe": _RECIPE.dump_python(order.recipe, mode="json"),
        "clip": _CLIP.dump_python(order.clip, mode="json"),
        "motion": _packed(order.motion),
        "subject": None if order.subject is None else _subject_told(order.subject),
    }
    return json.dumps({"render": told})


def order_read(text: str) -> Order:
    """The order that a text is. Raises WireError."""
    try:
        told = json.loads(text)
        if "measure" in told:
            planned = _PLANNED.validate_python(told["measure"]["planned"])
            return MeasureOrder(
                frozenset(told["measure"]["background"]),
                None if planned is None else {(one, two): s for one, two, s in planned},
            )
        render = told["render"]
        return RenderOrder(
            **render
            | {
                "recipe": _RECIPE.validate_python(render["recipe"]),
                "clip": _CLIP.validate_python(render["clip"]),
                "motion": _unpacked(render["motion"]),
                "size": tuple(render["size"]),
                "subject": None if render["subject"] is None else _subject(render["subject"]),
            }
        )
    except UNREADABLE as error:
        raise WireError(f"no order: {error}") from error


def result_text(result: Result) -> str:
    """A result as text."""
    if isinstance(result, Fault):
        return json.dumps({"fault": asdict(result)})
    if isinstance(result, RenderResult):
        return json.dumps({"rendered": asdict(result)})
    names = ClipFactsRow.__dataclass_fields__
    return json.dumps(
        {
            "measured": {
                "facts": {name: getattr(result.measured, name) for name in names},
                "title": result.measured.title,
                "motion": _packed(result.measured.motion),
                "slates": [asdict(one) for one in result.slates],
            }
        }
    )


def result_read(text: str) -> Result:
    """The result that a text is. Raises WireError."""
    try:
        told = json.loads(text)
        if "fault" in told:
            return believable.fault(told["fault"], most_words=MOST_WORDS)
        if "rendered" in told:
            return believable.rendered(told["rendered"])
        measured = told["measured"]
        facts = believable.facts(measured["facts"])
        motion = _unpacked(measured["motion"])
        believable.require_path(motion, frames=facts.frames)
        slates = [SlateSeen(**one) for one in believable.slates(measured["slates"])]  # type: ignore[arg-type]
        title = believable.title(measured["title"])
        return MeasureResult(Measured(motion=motion, title=title, **asdict(facts)), slates)
    except UNREADABLE as error:
        raise WireError(f"no result: {error}") from error


def _packed(motion: Motion) -> str:
    return base64.b64encode(clips.pack(motion)).decode()


def _unpacked(text: str) -> Motion:
    data = base64.b64decode(text, validate=True)
    with zipfile.ZipFile(io.BytesIO(data)) as parts:
        if sum(info.file_size for info in parts.infolist()) > MOST_PATH_BYTES:
            raise ValueError("a path is too large")
    return clips.unpack(data)


def _subject_told(subject: Subject) -> dict[str, Any]:
    return {
        "marks": [asdict(mark) for mark in subject.marks],
        "paths": [
            _array_told(np.column_stack([path.t_s, path.x_pct, path.y_pct]))
            for path in subject.paths
        ],
    }


def _subject(told: dict[str, Any]) -> Subject:
    columns = [_array(one) for one in told["paths"]]
    return Subject(
        _MARKS.validate_python(told["marks"]),
        tuple(SubjectPath(one[:, 0], one[:, 1], one[:, 2]) for one in columns),
    )


def _array_told(array: NDArray[np.float64]) -> str:
    buffer = io.BytesIO()
    np.save(buffer, array, allow_pickle=False)
    return base64.b64encode(buffer.getvalue()).decode()


def _array(text: str) -> NDArray[np.float64]:
    found = np.load(io.BytesIO(base64.b64decode(text, validate=True)), allow_pickle=False)
    return np.asarray(found, np.float64)
