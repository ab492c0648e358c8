"""The command: what it prints and writes, and how it refuses."""

from __future__ import annotations

import csv
import json
import socket
import subprocess
import sys

import pytest
from click.testing import CliRunner

from ridgewind.cli.main import main
from ridgewind.demo.mark import MARK
from tests.conftest import shaken, write_film
from tests.media.test_media import EXPECTED, bad_files


def run(*arguments):
    return CliRunner().invoke(main, [str(argument) for argument in arguments])


@pytest.mark.parametrize("name", ["measure", "serve", "demo", "standin", "trial", "limit"])
def test_every_command_has_help_with_examples(name):
    result = run(name, "--help")
    assert result.exit_code == 0
    assert "Examples:" in result.output
    assert f"ridgewind {name}" in result.output


def test_measure_prints_a_summary_and_writes_path_and_readings(short_film, tmp_path):
    result = run(
        "measure", short_film, "--csv", tmp_path / "p.csv", "--json", tmp_path / "r.json",
        "--feel", "raw", "--focal-eq", 35, "--delivery-fps", 25,
    )  # fmt: skip
    assert result.exit_code == 0, result.output
    assert "Gust" in result.output
    assert "Verdict: Keep it as shot" in result.output
    rows = list(csv.reader((tmp_path / "p.csv").read_text().splitlines()))
    assert rows[0] == ["t_s", "pan_pct", "tilt_pct", "roll_deg", "zoom_pct", "trust"]
    assert len(rows) == 46
    readings = json.loads((tmp_path / "r.json").read_text())
    assert readings["causes"][0]["evidence"] in result.output
    assert all(0 < cause["certainty"] <= 1 for cause in readings["causes"])
    assert readings["move"] is None or readings["move"]["extent"] > 0
    assert readings["clip"] == {
        "width": 320, "height": 180, "fps": 30.0, "variable_rate": False, "duration_s": 1.5,
        "frames": 45, "codec": "h264", "claimed_duration_s": None,
    }  # fmt: skip
    assert readings["target"] == 8.0
    assert readings["verdict"]["remedy"] == "keep"
    assert set(readings["bands"]) == {"drift", "sway", "step", "jitter", "buzz"}
    assert readings["shots"][0]["measurable"] is True
    assert readings["lee"]["end_s"] > readings["lee"]["start_s"]
    for key in ("method", "gust", "peak_gust", "floor_gust", "trusted_share"):
        assert readings[key] is not None
    assert [path.name for path in sorted(tmp_path.iterdir())] == ["p.csv", "r.json"]


def test_unmeasured_frames_leave_empty_cells(tmp_path):
    import cv2

    frames = list(shaken(60))
    for k in range(30, 34):
        frames[k] = cv2.GaussianBlur(frames[k], (0, 0), 40)
    path = write_film(tmp_path / "film.mp4", frames)
    assert run("measure", path, "--csv", tmp_path / "p.csv").exit_code == 0
    rows = list(csv.reader((tmp_path / "p.csv").read_text().splitlines()))
    assert rows[32][1:5] == ["", "", "", ""]
    assert float(rows[32][5]) < 0.5


@pytest.fixture(scope="module")
def bad(tmp_path_factory):
    return bad_files(tmp_path_factory.mktemp("bad"))


@pytest.mark.parametrize("name", EXPECTED)
def test_refusals_are_one_line_and_status_one(name, bad):
    result = run("measure", bad[name])
    assert result.exit_code == 1
    assert result.stderr.count("\n") == 1
    assert result.stderr.startswith(f"ridgewind: {bad[name].name}: ")
    assert EXPECTED[name][1] in result.stderr.split("; ")[0]
    assert "; " in result.stderr
    assert result.stdout == ""


def test_a_real_process_refuses_without_a_traceback(bad):
    done = subprocess.run(
        [sys.executable, "-m", "ridgewind.cli", "measure", str(bad["cut.mp4"])],
        capture_output=True, text=True, check=False,
    )  # fmt: skip
    assert done.returncode == 1
    assert done.stderr == (
        "ridgewind: cut.mp4: the file is cut short: its index is missing; copy it from the card "
        "again, or let the camera repair its card\n"
    )


def test_an_output_that_cannot_be_written_says_so(short_film, tmp_path):
    result = run("measure", short_film, "--csv", tmp_path / "no" / "such" / "p.csv")
    assert result.exit_code == 1
    assert "cannot be written" in result.stderr


def test_standin_films_and_writes_its_truth(tmp_path):
    result = run(
        "standin", tmp_path / "a.mp4", "--size", 320, 180, "--seconds", 0.5, "--fps", 10,
        "--scene", "door", "--move", "walk", "--cadence-hz", 1.8, "--truth", tmp_path / "t.csv",
    )  # fmt: skip
    assert result.exit_code == 0, result.output
    assert (tmp_path / "a.mp4").stat().st_size > 1000
    assert len((tmp_path / "t.csv").read_text().splitlines()) == 6


def test_the_demo_never_empties_a_folder_that_is_not_its_own(tmp_path):
    (tmp_path / "precious.txt").write_text("keep me")
    result = run("demo", "--data", tmp_path)
    assert result.exit_code == 1
    assert "holds other files" in result.stderr
    assert (tmp_path / "precious.txt").exists()


def test_the_lens_that_a_file_names_is_used_unless_one_is_given(tmp_path):
    import av

    plain = write_film(tmp_path / "plain.mp4", shaken(30))
    told = tmp_path / "told.mkv"
    with av.open(str(plain)) as source, av.open(str(told), "w") as out:
        out.metadata["FOCAL_LENGTH_35MM"] = "52 mm"
        stream = out.add_stream_from_template(source.streams.video[0])
        for packet in source.demux(video=0):
            if packet.dts is not None:
                packet.stream = stream
                out.mux(packet)
    for args, focal in (([], 52.0), (["--focal-eq", 35], 35.0)):
        result = run("measure", told, "--json", tmp_path / "out.json", *args)
        assert result.exit_code == 0, result.output
        found = json.loads((tmp_path / "out.json").read_text())
        assert found["brief"]["focal_eq_mm"] == focal


def test_a_demo_whose_port_is_taken_owns_no_folder(tmp_path):
    with socket.create_server(("127.0.0.1", 0)) as other:
        result = run("demo", "--data", tmp_path, "--port", other.getsockname()[1])
    assert result.exit_code == 1
    assert "port" in result.stderr
    assert not (tmp_path / MARK).exists()
