"""The commands that compare many takes: what they write, and how they refuse a bad table."""

from __future__ import annotations

import json

import pytest

from tests.cli.test_cli import run
from tests.core.trials.test_trial import STRAP


@pytest.fixture
def strap(tmp_path):
    rows = [f"{one.session},{one.variation},{one.value}" for one in STRAP]
    table = tmp_path / "strap.csv"
    table.write_text("\n".join(["session,variation,gust", *rows]) + "\n")
    return table


def test_trial_writes_what_the_worked_table_gives(strap, tmp_path):
    found = json.loads(run("trial", strap, "--control", "slack").output)
    assert (found["dof"], found["hint"]) == (13, False)
    assert found["spread"] == pytest.approx(0.2142, abs=1e-4)
    firm = found["against_control"]["firm"]
    assert [firm["difference"], firm["low"], firm["high"]] == pytest.approx(
        [-0.700, -0.919, -0.481], abs=1e-3
    )
    assert (firm["p"], firm["more_takes"]) == (pytest.approx(2 / 216), 0)
    file = tmp_path / "out.json"
    result = run("trial", strap, "--control", "slack", "--fatigue", "--json", file)
    assert "firm against slack: -1.01 gust" in result.output
    assert json.loads(file.read_text())["fatigue"]["gust_a_take"] == pytest.approx(0.1556, abs=1e-3)


def test_limit_writes_the_longest_lens_of_each_technique(tmp_path):
    table = tmp_path / "t.csv"
    speeds = [-0.32, 0.11, 0.05, -0.2, 0.4, -0.05]
    rows = [f"hands,{one}" for one in speeds] + ["wall,-0.2"]
    table.write_text("technique,log2_body_speed\n" + "\n".join(rows))
    options = ["--target", 4, "--overall-mean", 0.1, "--overall-sd", 0.5]
    found = json.loads(run("limit", table, *options).output)
    assert found["longest_mm"] == {
        "hands": pytest.approx(14.62, abs=0.005), "wall": pytest.approx(12.75, abs=0.005),
    }  # fmt: skip
    leant = json.loads(run("limit", table, "--target", 4).output)["longest_mm"]
    assert leant["hands"] != found["longest_mm"]["hands"]
    assert run("limit", table, "--target", 4, "--json", tmp_path / "x.json").output.startswith(
        "hands: up to"
    )


BAD = {
    "header": "a,b,c\n1,2,3\n",
    "empty": "session,variation,gust\n",
    "nothing": "",
    "word": "session,variation,gust\nd1,slack,calm\n",
    "infinite": "session,variation,gust\nd1,slack,inf\n",
    "short": "session,variation,gust\nd1,slack\n",
    "hole": "session,variation,gust\nd1,,4\n",
    "one variation": "session,variation,gust\nd1,slack,4\nd1,slack,5\n",
    "no control": "session,variation,gust\nd1,firm,4\nd1,hard,5\n",
}


@pytest.mark.parametrize("name", BAD)
def test_a_bad_table_ends_with_one_line_and_status_1(name, tmp_path):
    table = tmp_path / "bad.csv"
    table.write_text(BAD[name])
    result = run("trial", table, "--control", "slack")
    assert result.exit_code == 1
    assert result.stdout == ""
    assert len(result.stderr.strip().splitlines()) == 1
    assert result.stderr.startswith("ridgewind: ")


@pytest.mark.parametrize("content", [None, b"\xff\xfe\x00technique", b"technique\nhands\n"])
def test_a_limit_of_no_table_is_refused(content, tmp_path):
    table = tmp_path / "t.csv"
    if content is not None:
        table.write_bytes(content)
    result = run("limit", table, "--target", 4)
    assert (result.exit_code, len(result.stderr.strip().splitlines())) == (1, 1)


def test_a_table_of_a_spreadsheet_is_read(tmp_path):
    table = tmp_path / "t.csv"
    text = "session, variation, gust\r\nd1, slack, 4.9\r\nd1, firm, 4.2\r\n\r\n"
    table.write_bytes(b"\xef\xbb\xbf" + text.encode())
    found = json.loads(run("trial", table, "--control", "slack").output)
    assert found["against_control"]["firm"]["difference"] == pytest.approx(-0.7)
    assert (found["dof"], found["spread"], found["best"]) == (0, None, {})
