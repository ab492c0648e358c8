"""What the demo's volunteer did at the desk: marks and a film, both told from what was measured."""

from __future__ import annotations

import json
import threading
from dataclasses import replace

import pytest

from ridgewind.core.brief import usual_brief
from ridgewind.core.sequence.plain_words import read_line
from ridgewind.demo import desk, folder
from ridgewind.demo.filling import OUTING
from ridgewind.library.library import Library
from ridgewind.services import became_film, eyes
from ridgewind.store import briefs, database, outings, used_takes
from tests.conftest import shaken, write_film
from tests.web.conftest import measure

AMPLITUDES_PX = {desk.MARKED[0]: 6.0, desk.MARKED[1]: 0.3, "Left unmarked": 0.4}


@pytest.fixture
def filmed(tmp_path):
    """A demo of three clips, of which an outing's shots were filmed."""
    library = Library(tmp_path / "demo")
    library.root.mkdir()
    folder.begin(library)
    library.prepare()
    with database.opened(library.database) as db:
        with database.atomic(db):
            brief_id = briefs.add(db, usual_brief(), name="Smooth")
            outing = outings.add(db, replace(OUTING, brief_id=brief_id))
            shots = outings.add_shots(db, outing, [read_line("wide of the mill, 1 s").shot] * 3)
        for (name, amplitude_px), shot in zip(AMPLITUDES_PX.items(), shots, strict=True):
            film = write_film(tmp_path / f"{shot}.mp4", shaken(60, amplitude_px=amplitude_px))
            with film.open("rb") as stream:
                added = library.add(
                    db, stream, file_name=film.name, size_bytes=None, name=name, brief_id=brief_id
                )
            measure(library, added.take.id)
            with database.atomic(db):
                outings.meet(db, added.take.id, shot, how="hand")
    return library, outing


def test_some_clips_are_marked_by_eye_and_the_calm_ones_become_film(filmed):
    library, _ = filmed
    desk.sit_down(library, threading.Event())
    with database.opened(library.database) as db:
        smooth = next(one for one in eyes.eye_of(db) if one.feel == "smooth")
        assert {row.take_name: row.smooth for row in smooth.marks} == {
            desk.MARKED[0]: False,
            desk.MARKED[1]: True,
        }
        assert all(row.blind for row in smooth.marks)
        used = used_takes.everywhere(db)
        assert len(used) == 2
        [film] = became_film.became_film(db)
        assert (film.takes, film.used) == (3, 2)
        # The film has been cut: four fifths of what was planned.
        assert film.seconds == pytest.approx(2 * 0.8, abs=0.1)


def test_a_demo_that_is_stopped_is_left_as_it_is(filmed, tmp_path):
    library, _ = filmed
    with database.opened(library.database) as db:
        film = write_film(tmp_path / "more.mp4", shaken(30, amplitude_px=1.0))
        with film.open("rb") as stream:
            library.add(db, stream, file_name="more.mp4", size_bytes=None)  # waits to be measured
    stopping = threading.Event()
    stopping.set()
    desk.sit_down(library, stopping)
    with database.opened(library.database) as db:
        assert used_takes.everywhere(db) == []


def test_what_has_no_gust_is_no_part_of_the_film():
    gap = {"metadata": {"ridgewind": {"missing": "no take"}}}
    rough = {"metadata": {"ridgewind": {"gust": 8.0}}, "source_range": {"duration": {"value": 9}}}
    calm = {"metadata": {"ridgewind": {"gust": 2.0}}, "source_range": {"duration": {"value": 10}}}
    timeline = {"tracks": {"children": [{"children": [gap, rough, calm]}]}}
    [track] = json.loads(desk.cut_down(json.dumps(timeline)))["tracks"]["children"]
    assert [one["source_range"]["duration"]["value"] for one in track["children"]] == [8.0]
