"""What the models of all places build on; the OpenAPI document is made from all of them."""

from __future__ import annotations

from functools import cache
from typing import Annotated, Any, Literal

from pydantic import AfterValidator, BaseModel, ConfigDict, Field

RowId = Annotated[int, Field(ge=1, le=2**53)]
"""Number of a row that a request names; as large as a browser can count."""

MOST_CHOSEN = 20_000


def _each_once(numbers: list[int]) -> list[int]:
    if len(set(numbers)) != len(numbers):
        raise ValueError("each may be named once")
    return numbers


RowIds = Annotated[list[RowId], Field(max_length=MOST_CHOSEN), AfterValidator(_each_once)]
"""Several of them, in the order that is meant."""

FeelName = Literal["locked", "smooth", "alive", "raw"]


ScreenName = Literal["phone", "laptop", "cinema"]


class Model(BaseModel):
    """Worked out when it is first used: hundreds of them at once are a fifth of a start."""

    model_config = ConfigDict(defer_build=True)

    @classmethod
    def model_json_schema(cls, *args: Any, **options: Any) -> dict[str, Any]:
        """Made once in its usual form, in which it is asked for at every request with a query:
        making it was a third of the time of listing takes."""
        return super().model_json_schema(*args, **options) if args or options else _schema(cls)


@cache
def _schema(model: type[Model]) -> dict[str, Any]:
    return super(Model, model).model_json_schema()


class Strict(Model):
    """Unknown fields are refused."""

    model_config = ConfigDict(extra="forbid")


JobState = Literal["queued", "running", "done", "failed", "cancelled"]


class ErrorBody(Model):
    code: str
    message: str
    hint: str
    field: str | None


class ErrorAnswer(Model):
    error: ErrorBody


class NamedLink(Model):
    id: int
    name: str


class Trouble(Model):
    """Why nothing can be kept just now."""

    code: str
    message: str
    hint: str


class Mended(Model):
    """The database was damaged, and is the copy of a moment again. films: that had come since, and
    were taken in anew. aside: name of the damaged file."""

    copied_at: str
    films: int
    aside: str


class Status(Model):
    """demo: the library holds made clips, and is made anew at the next start unless it holds others
    too. phone: the name of the paired phone that asks, None on the computer itself. trouble: None
    where all is well. mended: what was, until it is read."""

    version: str
    demo: bool
    phone: str | None
    trouble: Trouble | None
    mended: Mended | None
    feels: dict[FeelName, float]
    screens_deg: dict[ScreenName, float]


class KeptSession(Model):
    """The number of a session that was planned in one step."""

    session_id: int
