"""A drill: a technique practised in a stated way, with a plain control beside it.

Shipped drills are TOML files in this package's folder `drills`, each an array of `[[drill]]`
tables whose fields are those of `Drill` below; `variations` and `faults` are arrays of tables. A
drill's table `pose` is what its variations' own poses change.
"""

from __future__ import annotations

import tomllib
from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from typing import Any, Literal, get_args

from ridgewind.core.brief import FEELS
from ridgewind.core.errors import InvalidArgumentError, require_between, require_choice
from ridgewind.core.practice.pose import PLAIN_POSE, Pose, pose_from

Family = Literal["standing", "strap", "weight", "planted", "walking", "leaning", "monopod", "other"]
Load = Literal["neck", "shoulders", "wrist", "back", "knees"]
Space = Literal["spot", "steps", "path"]
Tempo = Literal["none", "walk", "move", "breath"]
Measure = Literal["jitter", "sway", "step", "buzz", "evenness", "centring", "dip"]
Need = Literal[
    "strap", "weight", "top_handle", "monopod", "pole", "cloth", "tripod", "blanket", "helper",
    "vehicle", "long_lens", "zoom", "lean", "even_ground", "smooth_floor",
]  # fmt: skip
Cause = Literal[
    "tremor", "footfalls", "weight_shift", "breath", "wander", "swing", "buzz", "jerk", "uneven",
    "dip", "horizon", "fatigue",
]  # fmt: skip

LOADS: tuple[Load, ...] = ("neck", "shoulders", "wrist", "back", "knees")
SPACES: tuple[Space, ...] = ("spot", "steps", "path")
LONGEST_TAKE_S, MOST_TAKES = 120.0, 40


@dataclass(frozen=True)
class Variation:
    """One way of doing a drill. control: the plain way, for comparison. reason: why some do it
    so. pose: how the body does it."""

    key: str
    name: str
    control: bool
    how: str
    reason: str
    pose: Pose = PLAIN_POSE


@dataclass(frozen=True)
class DrillFault:
    """What is seen, its usual cause, and one thing to try."""

    sees: str
    cause: Cause
    try_: str


@dataclass(frozen=True)
class Drill:
    """needs: what must be in the bag or at the place. measures: the figure that matters.
    feel, target: the pass mark is a gust at or under target. loads: what it tires. space: the
    least that it needs. tempo: what the runner sounds. takes: of one set, over all variations
    practised. easier, harder: keys of neighbours, or None. feels: what doing it well is like.
    one_hold: what the hold is called that all its variations are, where they differ by the lens;
    empty where they differ by the body.
    """

    key: str
    name: str
    family: Family
    purpose: str
    use: str
    avoid: str
    needs: tuple[Need, ...]
    set_up: tuple[str, ...]
    move: str
    variations: tuple[Variation, ...]
    cues: tuple[str, ...]
    measures: Measure
    feel: str
    target: float
    faults: tuple[DrillFault, ...]
    cautions: tuple[str, ...]
    easier: str | None
    harder: str | None
    take_s: float
    takes: int
    rest_s: float
    loads: tuple[Load, ...]
    space: Space
    tempo: Tempo
    feels: str = ""
    one_hold: str = ""

    def __post_init__(self) -> None:
        for name in ("key", "name", "purpose", "move"):
            if not str(getattr(self, name)).strip():
                raise InvalidArgumentError(name, getattr(self, name), "it must say something")
        require_choice("feel", self.feel, FEELS)
        for name, choices in (
            ("family", Family), ("measures", Measure), ("space", Space), ("tempo", Tempo),
        ):  # fmt: skip
            require_choice(name, getattr(self, name), get_args(choices))
        for name, choices in (("needs", Need), ("loads", Load)):
            for value in getattr(self, name):
                require_choice(name, value, get_args(choices))
        for fault in self.faults:
            require_choice("cause", fault.cause, get_args(Cause))
        require_between("target", self.target, 0, 10)
        require_between("take_s", self.take_s, 1, LONGEST_TAKE_S, "s")
        require_between("rest_s", self.rest_s, 0, 600, "s")
        require_between("takes", self.takes, 1, MOST_TAKES)
        keys = [variation.key for variation in self.variations]
        if len(keys) < 2 or len(set(keys)) < len(keys):
            rule = "a drill needs two variations or more, each with a key of its own"
            raise InvalidArgumentError("variations", keys, rule)
        if sum(variation.control for variation in self.variations) != 1:
            raise InvalidArgumentError("variations", keys, "exactly one must be the plain control")

    @property
    def control(self) -> Variation:
        return next(variation for variation in self.variations if variation.control)

    def hold_of(self, variation: str) -> str:
        """The variation by whose key the hold goes that a variation is filmed with: its own, or
        the control's where all are one hold."""
        return self.control.key if self.one_hold else variation


@dataclass(frozen=True)
class Technique:
    """A variation of a drill, as it is compared over all its takes."""

    drill: Drill
    variation: str

    @property
    def key(self) -> str:
        return f"{self.drill.key}/{self.variation}"

    @property
    def name(self) -> str:
        found = (one.name for one in self.drill.variations if one.key == self.variation)
        return next(found, self.variation)


@dataclass(frozen=True)
class HoldTechnique(Technique):
    """A technique as a way of holding, whatever the lens: variations that differ by the lens alone
    are one. variation: see `Drill.hold_of`."""

    @property
    def name(self) -> str:
        return self.drill.one_hold or super().name


def parse_drills(text: str) -> tuple[Drill, ...]:
    """Drills of one TOML file. Raises InvalidArgumentError for one that breaks the schema."""
    return tuple(_drill(table) for table in tomllib.loads(text)["drill"])


def library_of(drills: Iterable[Drill]) -> dict[str, Drill]:
    """Drills by key. Raises InvalidArgumentError where two share a key."""
    found: dict[str, Drill] = {}
    for drill in drills:
        if drill.key in found:
            raise InvalidArgumentError("key", drill.key, "two drills have it")
        found[drill.key] = drill
    return found


def _drill(table: Mapping[str, Any]) -> Drill:
    known = set(Drill.__dataclass_fields__)
    table = {"one_hold": ""} | dict(table)
    own = pose_from(table.get("pose", {}))
    table = {key: value for key, value in table.items() if key != "pose"}
    if table.keys() != known:
        odd = sorted(table.keys() ^ known)
        raise InvalidArgumentError("drill", table.get("key"), f"check its fields {', '.join(odd)}")
    values: dict[str, Any] = {
        key: tuple(value) if isinstance(value, list) else value for key, value in table.items()
    }
    values["variations"] = tuple(
        Variation(**(one | {"pose": pose_from(one.get("pose", {}), own)}))
        for one in table["variations"]
    )
    values["faults"] = tuple(
        DrillFault(one["sees"], one["cause"], one["try"]) for one in table["faults"]
    )
    return Drill(**values)
