"""Takes joined: proposed from the shots, changed, better matched, and taken along."""

from __future__ import annotations

import csv
import io
import json
import zipfile

import cv2
import numpy as np
import opentimelineio as otio
import pytest
from click.testing import CliRunner

from ridgewind.cli.main import main
from ridgewind.core.sequence.pace import Knot
from ridgewind.services.timelines import read_back
from ridgewind.store import clips, database, takes
from tests.web.conftest import HERE
from tests.web.sequence.test_outings import ask


def test_the_shots_propose_pieces_and_what_is_missing_stays_in_its_place(client, joined_outing):
    found = ask(client, "GET", f"/outings/{joined_outing}/joined")
    first, second, third, fourth = found["pieces"]
    assert found["proposed"]
    assert [one["subject"] for one in found["pieces"]] == [
        "the mill", "the cap", "the door", "the loft",
    ]  # fmt: skip
    assert (first["piece"]["backwards"], second["piece"]["backwards"]) == (False, True)
    assert fourth["trouble"] == "This shot has no take yet."
    assert fourth["take"] is None
    for one, line in zip(found["pieces"], (3, 2, 2, 4), strict=True):
        assert one["frames"] == pytest.approx(line * found["rate_hz"], abs=1)
    assert found["frames"] == sum(one["frames"] for one in found["pieces"])
    assert [one["start"] for one in found["pieces"]][1] == first["frames"]
    # The reversed pan runs to the left, as was planned.
    assert second["exit"][0] < -1 or second["entry"][0] < -1
    assert third["gust"] is not None
    fights, _, nothing = found["cuts"]
    assert fights["mismatch"] > 1
    assert fights["joined"] == "fights"
    assert nothing["mismatch"] is None


def test_a_cut_is_made_better_by_what_is_offered(client, joined_outing):
    found = ask(client, "GET", f"/outings/{joined_outing}/joined")
    best = ask(client, "GET", f"/outings/{joined_outing}/joined/cuts/0")["better"][0]
    assert best["mismatch"] < found["cuts"][0]["mismatch"]
    pieces = [one["piece"] for one in found["pieces"]]
    changed = [*best["pieces"], *pieces[2:]]
    path = f"/outings/{joined_outing}/joined"
    kept = ask(client, "PUT", path, {"pieces": changed, "base": pieces})
    assert kept["cuts"][0]["mismatch"] == pytest.approx(best["mismatch"], abs=0.02)
    assert not kept["proposed"]
    late = ask(client, "PUT", path, {"pieces": pieces, "base": pieces}, 409)
    assert late["error"]["code"] == "changed_elsewhere"
    anew = ask(client, "POST", f"{path}/anew")
    assert [one["piece"] for one in anew["pieces"]] == pieces
    assert anew["proposed"]


@pytest.mark.parametrize(
    ("change", "field"), [({"speed": 0}, "speed"), ({"in_s": -1}, "in_s"), ({"out_s": 0}, "out_s")]
)
def test_pieces_that_cannot_be_are_refused(client, joined_outing, change, field):
    found = ask(client, "GET", f"/outings/{joined_outing}/joined")
    pieces = [one["piece"] for one in found["pieces"]]
    wrong = [{**pieces[0], **change}, *pieces[1:]]
    refused = ask(client, "PUT", f"/outings/{joined_outing}/joined", {"pieces": wrong}, 400)
    assert refused["error"]["field"] == field


def test_a_deleted_take_and_one_too_short_are_shown_in_their_place(client, library, joined_outing):
    path = f"/outings/{joined_outing}/joined"
    pieces = [one["piece"] for one in ask(client, "GET", path)["pieces"]]
    longer = [{**pieces[0], "out_s": 9.0}, *pieces[1:]]
    kept = ask(client, "PUT", path, {"pieces": longer})
    assert "ends at 9.0 s" in kept["pieces"][0]["trouble"]
    with database.opened(library.database) as db, database.atomic(db):
        takes.set_deleted(db, pieces[1]["take_id"], deleted=True)
    after = ask(client, "GET", path)
    assert len(after["pieces"]) == 4
    assert after["pieces"][1]["trouble"] == "Its take was deleted."


def timeline_of(client, joined_outing):
    text = client.get(f"/api/outings/{joined_outing}/sequence.otio", headers=HERE).text
    return text, otio.adapters.read_from_string(text, "otio_json")


def test_the_time_line_reads_back_with_every_range_inside_its_media(client, library, joined_outing):
    found = ask(client, "GET", f"/outings/{joined_outing}/joined")
    text, timeline = timeline_of(client, joined_outing)
    assert timeline.duration().to_frames() == found["frames"]
    (track,) = timeline.tracks
    assert [type(one).__name__ for one in track] == ["Clip", "Clip", "Clip", "Gap"]
    for clip in timeline.find_clips():
        media, used = clip.media_reference, clip.source_range
        assert (library.originals / media.target_url.rsplit("/", 1)[1]).is_file()
        speed = abs(clip.effects[0].time_scalar) if clip.effects else 1.0
        begins = used.start_time.to_seconds()
        assert begins >= 0
        ends = begins + speed * used.duration.to_seconds()
        assert ends <= media.available_range.end_time_exclusive().to_seconds() + 1e-6
    scalars = [clip.effects[0].time_scalar for clip in timeline.find_clips() if clip.effects]
    assert [one for one in scalars if one < 0] == [-1.0]
    assert len(read_back(text)) == 3
    with pytest.raises(ValueError, match="no piece of ours"):
        read_back(otio.adapters.write_to_string(otio.schema.Timeline(), "otio_json"))


def test_ramps_windows_and_lees_go_along(client, joined_outing):
    path = f"/outings/{joined_outing}"
    (usual, *_) = ask(client, "GET", "/briefs")["briefs"]
    raw = {"name": "Raw", "brief": {**usual["brief"], "feel": "raw"}}
    made = ask(client, "POST", "/briefs", raw, 201)
    for one in ask(client, "GET", f"{path}/joined")["pieces"][:3]:
        ask(client, "PATCH", f"/takes/{one['take']['id']}", {"brief_id": made["id"]})
    look = {"shape": "4:5", "beats_per_min": 96}
    pieces = [one["piece"] for one in ask(client, "PUT", f"{path}/joined/look", look)["pieces"]]
    ramp = [{"at_s": 1.0, "speed": 2.0}, {"at_s": 2.0, "speed": 1.0}]
    ramped = {**pieces[0], "in_s": 0.5, "out_s": 3.0, "ramp": ramp}
    found = ask(client, "PUT", f"{path}/joined", {"pieces": [ramped, *pieces[1:]]})
    text, timeline = timeline_of(client, joined_outing)
    assert timeline.duration().to_frames() == found["frames"]
    assert timeline.metadata["ridgewind"]["beats_per_min"] == 96
    first = next(iter(timeline.find_clips()))
    # Half a second at 2, one that takes 0.75 s, and one at full speed: 2.5 s in 2.
    assert found["pieces"][0]["frames"] == 48
    assert first.effects[0].time_scalar == pytest.approx(2.5 / 2.0)
    told = first.metadata["ridgewind"]
    assert told["window"] == {"width": pytest.approx(0.45), "height": 1.0}
    assert told["pixels_left"] == pytest.approx(480 * 0.45 / 1080, abs=0.01)
    names = [one.name for one in first.markers]
    assert names[-2:] == ["Speed 200 %", "Speed 100 %"]
    for clip in timeline.find_clips():
        for marker in clip.markers:
            if marker.name == "Lee":
                media = clip.media_reference.available_range
                assert media.contains(marker.marked_range.start_time)
                assert marker.marked_range.duration.to_seconds() >= 1.0
    assert "Lee" in {one.name for clip in timeline.find_clips() for one in clip.markers}
    assert read_back(text)[0].ramp == (Knot(1.0, 2.0), Knot(2.0, 1.0))
    (row, *_) = csv.DictReader(
        io.StringIO(client.get(f"/api{path}/sequence.csv", headers=HERE).text)
    )
    assert row["ramp"] == "1:2 2:1"


def test_it_is_put_on_paper(client, joined_outing):
    path = f"/api/outings/{joined_outing}/sequence"
    png = client.get(f"{path}.png", headers=HERE)
    picture = cv2.imdecode(np.frombuffer(png.data, np.uint8), cv2.IMREAD_COLOR)
    assert picture.shape[1] == 1754
    # The first cell shows its take: a picture, not bare paper.
    assert picture[200:350, 80:400].std() > 10
    pdf = client.get(f"{path}.pdf", headers=HERE)
    assert pdf.data.startswith(b"%PDF")
    assert pdf.mimetype == "application/pdf"


def test_tables_and_the_command_tell_the_same(client, library, joined_outing, tmp_path):
    rows = list(csv.DictReader(io.StringIO(
        client.get(f"/api/outings/{joined_outing}/sequence.csv", headers=HERE).text)))  # fmt: skip
    told = client.get(f"/api/outings/{joined_outing}/sequence.json", headers=HERE).json
    assert [row["subject"] for row in rows] == [one["subject"] for one in told["pieces"]]
    run = CliRunner().invoke
    data = ["--data", str(library.root)]
    assert run(main, ["sequence", *data]).output == "Harrow Top\n"
    out, line = tmp_path / "out.json", tmp_path / "out.otio"
    done = run(main, ["sequence", "Harrow Top", *data, "--json", str(out), "--otio", str(line)])
    assert done.exit_code == 0, done.output
    assert json.loads(out.read_text()) == told
    assert line.read_text() == timeline_of(client, joined_outing)[0]
    missing = run(main, ["sequence", "Elsewhere", *data])
    assert missing.exit_code != 0
    assert "no such outing" in missing.output


def test_in_an_archive_it_finds_its_films_beside_it(client, library, joined_outing):
    sent = client.get("/api/archive.zip", headers=HERE).data
    with zipfile.ZipFile(io.BytesIO(sent)) as opened:
        text = opened.read(f"sequences/{joined_outing}.otio").decode()
        films = {name for name in opened.namelist() if name.startswith("films/")}
    timeline = otio.adapters.read_from_string(text, "otio_json")
    media = {clip.media_reference.target_url for clip in timeline.find_clips()}
    assert {f"../{name}" for name in films} == media
    assert str(library.root) not in text


def test_an_original_that_was_put_aside_is_told(client, library, joined_outing):
    with database.opened(library.database) as db, database.atomic(db):
        clips.set_cleared(db, 1, cleared=True)
    first, second, *_ = ask(client, "GET", f"/outings/{joined_outing}/joined")["pieces"]
    assert first["notes"] == ["Its original was put aside: a desk will not find it."]
    assert second["notes"] == []
