"""Much at once: four phones, a live stream, an upload and a card that is measured, while a session
runs whose cues must stay on time."""

from __future__ import annotations

import json
import re
import ssl
import threading
import urllib.request
from contextlib import contextmanager
from pathlib import Path

import pytest
from playwright.sync_api import expect

from tests.conftest import shaken, write_film
from tests.e2e.conftest import HEADERS, PATIENCE_S
from tests.e2e.test_field import begin_session
from tests.e2e.test_practice_interface import EAR, LISTEN, wait_for
from tests.sending import announcing, at_offset

pytestmark = pytest.mark.e2e
PHONES, LOOK_S = 4, 0.25
LATEST_S = 0.02

STEPS = """
window.steps = [];
new MutationObserver((seen) => {
  for (const one of seen) {
    if (one.attributeName !== "data-step") continue;
    window.steps.push([one.target.dataset.step, performance.now() / 1000]);
  }
}).observe(document, { subtree: true, attributes: true });
"""
"""Keeps when each step of the runner was drawn."""


@contextmanager
def following(server, session: int):
    """Phones that look four times a second where the session is; gives how often each did."""
    opening = server.get("/api/network")["opening"]["address"]
    trusting = ssl._create_unverified_context()
    ended, looks = threading.Event(), []

    def look(number: int) -> None:
        digits = server.put("/api/network/code", {}, "POST")["code"]["digits"]
        form = f"code={digits}&name=Phone {number}".encode()
        opener = urllib.request.build_opener(
            urllib.request.HTTPSHandler(context=trusting), urllib.request.HTTPCookieProcessor()
        )
        origin = {"Origin": opening}
        opener.open(urllib.request.Request(f"{opening}/pair", form, origin), timeout=20).close()
        looks.append(0)
        while not ended.wait(LOOK_S):
            opener.open(f"{opening}/api/sessions/{session}/stage", timeout=20).close()
            looks[number] += 1

    threads = []
    for number in range(PHONES):  # one code at a time pairs one phone
        threads.append(threading.Thread(target=look, args=(number,)))
        threads[-1].start()
        server.wait_until(lambda number=number: len(looks) > number)
    yield looks
    ended.set()
    for one in threads:
        one.join()


@contextmanager
def sending(server):
    """A long film that comes in piece after piece until the end; gives how many bytes came."""
    ended, sent = threading.Event(), [0]
    piece = bytes(1 << 20)

    def send() -> None:
        headers = HEADERS | announcing("long walk.mp4", 1 << 30)
        address = server.ask("POST", "/api/uploads", headers=headers)["Location"]
        while not ended.is_set():
            server.ask("PATCH", address, piece, headers=HEADERS | at_offset(sent[0]))
            sent[0] += len(piece)

    thread = threading.Thread(target=send)
    thread.start()
    yield sent
    ended.set()
    thread.join()


def is_measured(server, path: str) -> bool:
    return server.get(path)["take"]["state"] == "done"


@contextmanager
def measuring(server, film: Path):
    """A card of films that are measured one after the other until the end; gives how many were."""
    ended, measured, content = threading.Event(), [0], film.read_bytes()

    def measure() -> None:
        while not ended.is_set():
            # A box that players pass over makes another film of it.
            box = (12).to_bytes(4, "big") + b"free" + measured[0].to_bytes(4, "big")
            film.write_bytes(content + box)
            take_id = server.send(film)
            server.wait_until(lambda path=f"/api/takes/{take_id}": is_measured(server, path))
            measured[0] += 1

    thread = threading.Thread(target=measure)
    thread.start()
    yield measured
    ended.set()
    thread.join()


def test_cues_stay_on_time_beside_phones_a_stream_an_upload_and_a_card(
    open_server, browser, tmp_path
):
    session = begin_session(open_server)
    film = write_film(tmp_path / "card.mp4", shaken(120, amplitude_px=2.0))
    context = browser.new_context(bypass_csp=True)  # the ear is no script of ours
    context.add_init_script(f"window.ear = {json.dumps(EAR)};{LISTEN}{STEPS}")
    beside = browser.new_context()
    meter, page = beside.new_page(), context.new_page()
    for one in (meter, page):
        one.set_default_timeout(1000 * PATIENCE_S)
    try:
        with (
            following(open_server, session) as looks,
            sending(open_server) as sent,
            measuring(open_server, film) as measured,
        ):
            meter.goto(f"{open_server.address}/field/live")
            meter.get_by_role("radio", name="Simulated camera").click()
            meter.get_by_role("button", name="Start").click()
            expect(meter.get_by_test_id("live-gust")).not_to_have_text("–")
            page.goto(f"{open_server.address}/practice/{session}?speed=2")
            page.get_by_role("button", name=re.compile("cautions: begin")).click()
            page.get_by_role("button", name="Start").click()
            page.keyboard.press("ArrowRight")
            begun = [*looks, *sent, *measured]
            wait_for(page, "roll", 0)
            wait_for(page, "rest", 0)
            runner = page.get_by_test_id("runner")
            cues = json.loads(runner.get_attribute("data-cues"))
            heard, steps = page.evaluate("[window.heard, window.steps]")
            now = [*looks, *sent, *measured]
            assert all(one > before for one, before in zip(now, begun, strict=True))
        due = {cue["tone"]: cue["at"] for cue in cues if cue["tone"] in ("roll", "end")}
        late = [min((one - at for one in heard), key=abs) for at in due.values()]
        assert len(due) == 2
        assert all(abs(one) < LATEST_S for one in late), late
        # What is drawn keeps pace with what is heard, on a machine that does all of this at once.
        drawn = dict(steps)
        rolled_s = drawn["rest"] - drawn["roll"]
        assert rolled_s == pytest.approx(due["end"] - due["roll"], abs=2.0)
    finally:
        beside.close()
        context.close()
