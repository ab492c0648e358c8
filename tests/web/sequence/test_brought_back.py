"""A time line comes back from the desk: what became film is kept, what cannot be read is said."""

from __future__ import annotations

import json

import opentimelineio as otio
import pytest

from ridgewind.services.assessing import LOG_CODEC
from ridgewind.store import database, takes
from tests.web.conftest import HERE
from tests.web.sequence.test_outings import ask


@pytest.fixture
def desk(client, joined_outing):
    """The time line as a desk has it: a piece thrown out, another trimmed, a clip of its own."""
    text = client.get(f"/api/outings/{joined_outing}/sequence.otio", headers=HERE).text
    timeline = otio.adapters.read_from_string(text, "otio_json")
    (track,) = timeline.tracks
    del track[3]  # the gap
    del track[0]
    first = track[0]
    rate = first.source_range.duration.rate
    first.source_range = otio.opentime.TimeRange(
        first.source_range.start_time, otio.opentime.RationalTime(rate, rate)
    )
    second = otio.opentime.TimeRange(
        otio.opentime.RationalTime(0, 25), otio.opentime.RationalTime(50, 25)
    )
    title = otio.schema.ExternalReference("file:///desk/title%20card.mov", second)
    track.append(otio.schema.Clip("Title", title, second))
    return timeline


def as_text(timeline) -> str:
    return otio.adapters.write_to_string(timeline, "otio_json")


def test_what_became_film_is_kept_with_its_gust(client, joined_outing, desk):
    path = f"/outings/{joined_outing}/used"
    assert ask(client, "GET", path)["used"] == []
    found = ask(client, "POST", path, {"text": as_text(desk)})
    assert found["unknown"] == ["Title"]
    first, second = found["used"]
    assert first["seconds"] == pytest.approx(1.0)
    assert first["out_s"] - first["in_s"] == pytest.approx(1.0)
    assert second["gust"] is not None
    assert found["seconds"] == pytest.approx(first["seconds"] + second["seconds"])
    pieces = ask(client, "GET", f"/outings/{joined_outing}/joined")["pieces"]
    assert [one["take"]["id"] for one in found["used"]] == [
        pieces[1]["piece"]["take_id"], pieces[2]["piece"]["take_id"],
    ]  # fmt: skip
    again = ask(client, "POST", path, {"text": as_text(desk)})
    assert len(again["used"]) == 2  # in place of what came before


def test_names_of_the_desk_and_lost_metadata_do_no_harm(client, joined_outing, desk):
    for clip in desk.find_clips():
        clip.metadata.clear()
        clip.name = "A001"
    found = ask(client, "POST", f"/outings/{joined_outing}/used", {"text": as_text(desk)})
    assert len(found["used"]) == 2
    assert found["unknown"] == ["A001"]


def foreign(desk) -> str:
    for clip in desk.find_clips():
        clip.media_reference.target_url = "file:///elsewhere/other.mp4"
    return as_text(desk)


def later(desk) -> str:
    told = json.loads(as_text(desk))
    told["OTIO_SCHEMA"] = "Timeline.99"
    return json.dumps(told)


@pytest.mark.parametrize(
    ("make", "words"),
    [
        (foreign, "uses no film of this library: it holds"),
        (later, "Timeline.99"),
        (lambda desk: as_text(desk)[:200], "not even JSON"),
        (lambda desk: "[]", "not even JSON"),
        (lambda desk: "{}", "no time line but something else"),
        (lambda desk: otio.adapters.write_to_string(desk.tracks[0], "otio_json"), "no time line"),
        (lambda desk: as_text(otio.schema.Timeline("Empty")), "no clip at all"),
    ],
)
def test_what_cannot_be_used_is_said_and_nothing_changes(client, joined_outing, desk, make, words):
    path = f"/outings/{joined_outing}/used"
    kept = ask(client, "POST", path, {"text": as_text(desk)})["used"]
    refused = ask(client, "POST", path, {"text": make(desk)}, 400)["error"]
    assert words in refused["message"]
    assert refused["hint"]
    assert ask(client, "GET", path)["used"] == kept


def test_a_take_that_goes_for_good_takes_its_use_along(client, library, joined_outing, desk):
    path = f"/outings/{joined_outing}/used"
    used = ask(client, "POST", path, {"text": as_text(desk)})["used"]
    with database.opened(library.database) as db, database.atomic(db):
        takes.remove(db, used[0]["take"]["id"])
    assert len(ask(client, "GET", path)["used"]) == 1


def test_findings_tell_which_moves_become_film(client, library, joined_outing, desk):
    assert ask(client, "GET", "/became-film")["lines"] == []
    used = ask(client, "POST", f"/outings/{joined_outing}/used", {"text": as_text(desk)})["used"]
    pan, still = ask(client, "GET", "/became-film")["lines"]
    assert {pan["name"], still["name"]} == {"Pan", "Still"}
    pan, still = (pan, still) if pan["name"] == "Pan" else (still, pan)
    assert pan["drill"] == "Planned shots"
    # Of two pans one is used, a second of it; of the still one all that was planned.
    assert (pan["takes"], pan["used"], pan["seconds"]) == (2, 1, pytest.approx(1.0))
    assert pan["gust"] == pytest.approx(used[0]["gust"], abs=1e-6)
    assert (still["takes"], still["used"]) == (1, 1)
    with database.opened(library.database) as db, database.atomic(db):
        of_logs = "update clip set codec = ? where id <> (select clip_id from take where id = ?)"
        db.execute(of_logs, (LOG_CODEC, used[0]["take"]["id"]))
    [pan] = ask(client, "GET", "/became-film")["lines"]  # the others have no picture to show
    assert (pan["name"], pan["takes"]) == ("Pan", 1)
    with database.opened(library.database) as db, database.atomic(db):
        db.execute("update clip set codec = 'h264'")
    client.delete(f"/api/takes/{used[0]['take']['id']}", headers=HERE)
    first, *_ = ask(client, "GET", "/became-film")["lines"]
    assert first["name"] == "Still"
