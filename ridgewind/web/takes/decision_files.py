"""A remedy's numbers as files that other programs read."""

from __future__ import annotations

import csv
import io
import json
from dataclasses import asdict

import numpy as np

from ridgewind.core.judge.recipe import Recipe
from ridgewind.services.deciding import Case, FrameWindows
from ridgewind.web.takes.decision_models import RecipeLine

WINDOWS_ARE = (
    "centre of the window from the picture's, right and down, percent of the long side; turn in"
    " degrees clockwise; size against the frame"
)


def as_json(case: Case, recipe: Recipe, frames: FrameWindows) -> str:
    """A recipe with the window of every frame."""
    found = frames.windows
    columns = {"x_pct": found.x_pct, "y_pct": found.y_pct, "turn_deg": found.turn_deg}
    body = {
        "take": case.take.name,
        **recipe_line(recipe, case.start_s).model_dump(),
        "trusted_share": round(frames.trusted_share, 4),
        "windows": {
            "about": WINDOWS_ARE,
            "t_s": np.round(frames.t_s, 5).tolist(),
            **{name: np.round(column, 5).tolist() for name, column in columns.items()},
            "size": np.round(found.size, 6).tolist(),
        },
    }
    return json.dumps(body, indent=1)


def as_csv(case: Case, recipe: Recipe) -> str:
    """A recipe as one row."""
    values = {"take": case.take.name, **recipe_line(recipe, case.start_s).model_dump()}
    out = io.StringIO()
    writer = csv.DictWriter(out, fieldnames=list(values))
    writer.writeheader()
    writer.writerow(
        {name: f"{one:.5g}" if isinstance(one, float) else one for name, one in values.items()}
    )
    return out.getvalue()


def recipe_line(recipe: Recipe, start_s: float) -> RecipeLine:
    """A recipe as the API shows it. start_s: of the film's first frame, s in the file."""
    values = asdict(recipe)
    return RecipeLine.model_validate(
        {name: values.get(name) for name in RecipeLine.model_fields}
        | {
            "remedy": recipe.kind,
            "start_s": max(0.0, recipe.start_s - start_s),
            "end_s": recipe.end_s - start_s,
            "plays_s": (recipe.end_s - recipe.start_s) / recipe.rate,
            "peak_gust": recipe.peak,
            "glide": None if recipe.hold is None else recipe.hold.glide,
        }
    )
