"""Practice in a real browser: planned, run against the audio clock, and never lost."""

from __future__ import annotations

import itertools
import json
import re

import pytest
from playwright.sync_api import Page, expect

from tests.e2e.helpers import check_accessibility

pytestmark = pytest.mark.e2e
SPEED = 6


def wait_for(page: Page, step: str, position: int) -> None:
    both = f'[data-testid="runner"][data-step="{step}"][data-position="{position}"]'
    page.locator(both).wait_for(timeout=90_000)


def keep_session(page: Page, address: str) -> str:
    page.goto(f"{address}/plan")
    expect(page.get_by_text(re.compile(r"\d+ drills, \d+ takes"))).to_be_visible()
    page.get_by_role("button", name="Keep and practise").click()
    expect(page.get_by_role("region", name="Cautions")).to_be_visible()
    return page.url


def begin(page: Page) -> None:
    """Accept the cautions, start, and go past warming and setting up."""
    page.get_by_role("button", name=re.compile("cautions: begin")).click()
    page.get_by_role("button", name=re.compile("^Start")).click()
    page.keyboard.press("ArrowRight")
    page.keyboard.press("ArrowRight")


def states(server, session_id: int = 1) -> list[str]:
    found = server.get(f"/api/sessions/{session_id}")["session"]["takes"]
    return [take["state"] for take in found]


def kept(server) -> list[str | None]:
    return [take["felt"] for take in server.get("/api/sessions/1")["session"]["takes"]]


def test_a_session_is_run_broken_off_and_taken_up_again(fresh, page):
    address = keep_session(page, fresh.address)
    page.goto(f"{address}?speed={SPEED}")
    page.get_by_role("button", name=re.compile("cautions: begin")).click()
    page.get_by_role("button", name=re.compile("^Start")).click()
    wait_for(page, "warm-up", 0)
    page.keyboard.press("ArrowRight")
    wait_for(page, "set-up", 0)
    page.keyboard.press("k")
    expect(page.get_by_label("ticked")).to_have_count(1)
    page.keyboard.press("PageDown")
    wait_for(page, "slate", 0)
    expect(page.get_by_alt_text("Code of take 1")).to_be_visible()
    wait_for(page, "roll", 0)
    wait_for(page, "rest", 0)
    page.keyboard.press("g")
    page.keyboard.press("3")
    expect(page.get_by_role("button", name="good")).to_have_attribute("aria-pressed", "true")
    wait_for(page, "roll", 1)
    page.reload()
    page.get_by_role("button", name=re.compile("^Go on")).click()
    expect(page.get_by_test_id("runner")).to_have_attribute("data-position", "1")
    page.get_by_role("button", name=re.compile("^Start")).click()
    wait_for(page, "roll", 1)
    wait_for(page, "roll", 2)
    page.keyboard.press(" ")
    expect(page.get_by_text("Paused")).to_be_visible()
    page.keyboard.press(" ")
    wait_for(page, "slate", 2)  # a take that was broken off begins again
    page.keyboard.press("ArrowRight")
    fresh.wait_until(lambda: states(fresh)[:3] == ["filmed", "filmed", "skipped"], 10)
    page.keyboard.press("Escape")
    expect(page.get_by_text("2 of")).to_be_visible()
    first = fresh.get("/api/sessions/1")["session"]["takes"][0]
    assert (first["felt"], first["fatigue"]) == ("good", 3)
    page.goto(f"{fresh.address}/plan/weeks")
    expect(page.get_by_text("1 of 1 takes passed").first).to_be_visible()


def test_a_skip_and_a_repeat_are_taken_back_and_the_end_says_what_comes_next(fresh, page):
    made = fresh.put("/api/drills/hands/session", {"variation": "two"}, "POST")
    session_id = made["session_id"]
    page.goto(f"{fresh.address}/practice/{session_id}?speed={SPEED}")
    page.get_by_role("button", name=re.compile("cautions: begin")).click()
    page.get_by_role("button", name=re.compile("^Start")).click()
    page.keyboard.press("ArrowRight")
    wait_for(page, "slate", 0)
    page.keyboard.press(" ")
    page.keyboard.press("ArrowRight")
    wait_for(page, "slate", 1)
    fresh.wait_until(lambda: states(fresh, session_id)[0] == "skipped", 10)
    page.get_by_role("button", name=re.compile("^Undo")).click()
    wait_for(page, "slate", 0)
    fresh.wait_until(lambda: states(fresh, session_id)[0] == "planned", 10)
    page.keyboard.press(" ")
    wait_for(page, "rest", 0)
    page.keyboard.press(" ")
    page.keyboard.press("ArrowLeft")
    wait_for(page, "slate", 0)
    fresh.wait_until(lambda: states(fresh, session_id)[0] == "planned", 10)
    page.keyboard.press("z")
    wait_for(page, "rest", 0)
    fresh.wait_until(lambda: states(fresh, session_id)[0] == "filmed", 10)
    strap, wind = (page.get_by_role("group", name=name) for name in ("strap", "wind"))
    strap.get_by_role("button", name="3").click()
    for key, group, now in (("", strap, "3"), ("s", strap, "4"), ("w", wind, "none"),
                            ("w", wind, "light")):  # fmt: skip
        if key:
            page.keyboard.press(key)
        chosen = group.get_by_role("button", name=now, exact=True)
        expect(chosen).to_have_attribute("aria-pressed", "true")
    for position in range(1, len(states(fresh, session_id))):
        page.keyboard.press("ArrowRight")
        if position == 1:  # out of the rest first
            wait_for(page, "slate", 1)
            page.keyboard.press("ArrowRight")
    expect(page.get_by_text("All done. Rest.")).to_be_visible()
    expect(page.get_by_text("Next: bring its films in")).to_be_visible()

    def has_ended() -> bool:
        return fresh.get(f"/api/sessions/{session_id}")["session"]["ended_at"] is not None

    fresh.wait_until(has_ended, 10)
    first = fresh.get(f"/api/sessions/{session_id}")["session"]["takes"][0]
    assert (first["tension"], first["wind"]) == (4, 1)
    page.keyboard.press("z")
    wait_for(page, "slate", 3)
    fresh.wait_until(lambda: not has_ended(), 10)
    back = ["filmed", "skipped", "skipped", "planned"]
    fresh.wait_until(lambda: states(fresh, session_id) == back, 10)


def test_cues_keep_time_with_the_audio_clock(fresh, page):
    address = keep_session(page, fresh.address)
    page.goto(address)
    begin(page)
    wait_for(page, "slate", 0)
    wait_for(page, "roll", 0)
    cues = json.loads(page.get_by_test_id("runner").get_attribute("data-cues"))
    ticks = [cue["at"] for cue in cues if cue["tone"] == "tick"][-5:]
    roll = next(cue["at"] for cue in cues if cue["tone"] == "roll")
    for one, after in zip([*ticks], [*ticks[1:], roll], strict=True):
        assert after - one == pytest.approx(1.0, abs=0.001)
    assert page.get_by_test_id("count").inner_text().isdigit()


def test_a_walk_is_beaten_at_its_own_pace_and_a_move_marked(fresh, page):
    for drill, tone in (("walk-forward", "beat"), ("pan", "mark")):
        shelf = fresh.get("/api/drills")["drills"]
        known = next(one["drill"] for one in shelf if one["drill"]["key"] == drill)
        named = next(one for one in known["variations"] if not one["control"])
        made = fresh.put(f"/api/drills/{drill}/session", {"variation": named["key"]}, "POST")
        page.goto(f"{fresh.address}/practice/{made['session_id']}?speed=6")
        page.get_by_role("button", name=re.compile("cautions: begin")).click()
        page.get_by_role("button", name=re.compile("^Start")).click()
        page.keyboard.press("ArrowRight")
        wait_for(page, "rest", 0)
        cues = json.loads(page.get_by_test_id("runner").get_attribute("data-cues"))
        begun = next(k for k, cue in enumerate(cues) if cue["tone"] == "roll")
        tones = [cue for cue in cues[begun:] if cue["tone"] == tone]
        if drill == "pan":
            assert len(tones) == 2  # the middle and the end frame
            continue
        pace = fresh.get(f"/api/sessions/{made['session_id']}")["cadence_hz"]
        gaps = [b["at"] - a["at"] for a, b in itertools.pairwise(tones)]
        assert len(gaps) > 5
        assert gaps == pytest.approx([1 / (6 * pace)] * len(gaps), abs=0.002)


EAR = """
registerProcessor("ear", class extends AudioWorkletProcessor {
  quiet = sampleRate;
  process([[samples]]) {
    for (let k = 0; k < (samples?.length ?? 0); k++) {
      if (Math.abs(samples[k]) < 0.02) this.quiet++;
      else {
        if (this.quiet > 0.1 * sampleRate) this.port.postMessage((currentFrame + k) / sampleRate);
        this.quiet = 0;
      }
    }
    return true;
  }
});
"""
LISTEN = """
const connect = AudioNode.prototype.connect;
window.heard = [];
AudioNode.prototype.connect = function (to, ...rest) {
  if (to === this.context.destination) {
    const module = "data:text/javascript," + encodeURIComponent(window.ear);
    this.context.audioWorklet.addModule(module).then(() => {
      const ear = new AudioWorkletNode(this.context, "ear");
      ear.port.onmessage = (event) => window.heard.push(event.data);
      connect.call(this, ear);
    });
  }
  return connect.call(this, to, ...rest);
};
"""
"""Listens to what leaves for the loudspeaker: when each sound begins, on the audio clock."""


def test_what_is_heard_begins_within_20_ms_of_its_time(fresh, browser):
    context = browser.new_context(bypass_csp=True)  # the ear is no script of ours
    page = context.new_page()
    page.add_init_script(f"window.ear = {json.dumps(EAR)};{LISTEN}")
    page.goto(keep_session(page, fresh.address))
    begin(page)
    wait_for(page, "roll", 0)
    page.wait_for_timeout(700)
    cues = json.loads(page.get_by_test_id("runner").get_attribute("data-cues"))
    due = [cue["at"] for cue in cues if cue["tone"] in ("tick", "roll")][-6:]
    heard = page.evaluate("window.heard")
    late = [min((one - at for one in heard), key=abs) for at in due]
    assert len(due) == 6
    assert all(abs(one) < 0.02 for one in late), late
    context.close()


def test_notes_outlive_the_page_that_could_not_send_them(fresh, browser):
    context = browser.new_context()
    page = context.new_page()
    address = keep_session(page, fresh.address)
    page.goto(f"{address}?speed={SPEED}")
    begin(page)
    wait_for(page, "slate", 0)
    page.route(re.compile(r"/api/sessions/1/takes/"), lambda route: route.abort())
    wait_for(page, "rest", 0)
    page.keyboard.press("g")
    page.close()
    assert states(fresh)[0] == "planned"
    later = context.new_page()
    later.goto(address)
    fresh.wait_until(lambda: (states(fresh)[0], kept(fresh)[0]) == ("filmed", "good"), 10)
    expect(later.get_by_test_id("planned-0")).to_contain_text("felt good")
    context.close()


def test_notes_wait_for_a_server_that_is_away(fresh, browser):
    context = browser.new_context()
    page = context.new_page()
    address = keep_session(page, fresh.address)
    page.goto(f"{address}?speed={SPEED}")
    begin(page)
    wait_for(page, "slate", 0)
    # Without a network the browser calls itself offline, yet this computer still answers.
    page.evaluate("dispatchEvent(new Event('offline'))")
    wait_for(page, "rest", 0)
    fresh.wait_until(lambda: states(fresh)[0] == "filmed", 5)
    away = re.compile(r"/api/sessions/1/takes/")
    page.route(away, lambda route: route.abort())
    page.keyboard.press("b")
    expect(page.get_by_text("Ridgewind does not answer. Go on")).to_be_visible()
    wait_for(page, "rest", 1)
    page.keyboard.press("g")
    notes = page.get_by_role("region", name="Notes on take 2")
    expect(notes.get_by_role("button", name="good")).to_have_attribute("aria-pressed", "true")
    assert states(fresh)[1] == "planned"
    page.keyboard.press(" ")
    page.wait_for_timeout(4000)  # longer than three tries take
    page.unroute(away)
    fresh.wait_until(lambda: states(fresh)[1] == "filmed", 15)
    fresh.wait_until(lambda: kept(fresh)[:2] == ["bad", "good"], 5)
    expect(page.get_by_text("Ridgewind does not answer. Go on")).to_have_count(0)
    context.close()


def test_a_locked_drill_stays_when_the_order_changes(fresh, page):
    page.goto(f"{fresh.address}/plan")
    first = page.get_by_role("listitem").filter(has=page.get_by_role("button")).first
    expect(page.get_by_role("button", name=re.compile("^Lock [A-Z]")).first).to_be_visible()
    name = first.locator("p").first.inner_text()
    names = page.get_by_role("button", name=re.compile("^Lock [A-Z]"))
    orders = page.get_by_role("listitem").filter(has=names).get_by_text("→")
    page.get_by_role("button", name=f"Lock {name}").click()
    before = orders.all_inner_texts()
    page.keyboard.press("r")
    page.keyboard.press("r")
    expect(orders).not_to_have_text(before)
    expect(first.locator("p").first).to_have_text(name)
    expect(orders.first).to_have_text(before[0])
    page.get_by_role("button", name=f"Lock {name}").click()
    page.get_by_role("button", name="Knees", exact=True).click()
    drills = [item["drill"] for item in fresh.get("/api/drills")["drills"]]
    spared = {f"Lock {drill['name']}" for drill in drills if "knees" not in drill["loads"]}
    expect(page.get_by_role("button", name="Knees", exact=True)).to_have_attribute(
        "aria-pressed", "true"
    )
    expect(page.get_by_role("button", name="Keep and practise")).to_be_enabled()
    shown = [one.get_attribute("aria-label") for one in names.all()]
    assert len(shown) >= 2
    assert set(shown) <= spared


def test_a_drill_is_copied_changed_and_archived(fresh, page):
    page.goto(f"{fresh.address}/plan/drills")
    page.keyboard.press("/")
    page.keyboard.type("orbit")
    page.get_by_role("link", name="Orbit", exact=True).click()
    expect(page.get_by_text("plain control").first).to_be_visible()
    page.get_by_role("button", name="Copy as your own").click()
    name = page.get_by_role("textbox", name="Name", exact=True).first
    expect(name).to_have_value("Orbit, my way")
    name.fill("Orbit of the cap")
    page.get_by_role("textbox", name="A take lasts").fill("0")
    page.get_by_role("button", name="Save").click()
    expect(page.get_by_text("It must be between 1 and 120 s.")).to_be_visible()
    page.get_by_role("textbox", name="A take lasts").fill("9")
    page.get_by_role("button", name="Save").click()
    expect(page.get_by_role("heading", name="Orbit of the cap")).to_be_visible()
    page.get_by_role("button", name="Archive").click()
    expect(page.get_by_role("button", name="Bring back")).to_be_visible()
    page.keyboard.press("z")
    expect(page.get_by_role("button", name="Archive")).to_be_visible()


PLACES = {
    "/plan": "Today’s session",
    "/plan/weeks": "Weeks ahead",
    "/plan/drills": "Drills",
    "/plan/drills/walk-forward": "Walking: the foot",
    "/practice": re.compile(r"^Leaning on a wall or post · One hand or two · Pan from the hips"),
}
"""Pages, and what is read on them."""


@pytest.mark.parametrize("place", PLACES)
def test_no_serious_accessibility_fault(demo, browser, place):
    def ready(page):
        return page.get_by_role("main").get_by_text(PLACES[place]).first

    check_accessibility(browser, demo.address + place, ready=ready)


def test_no_serious_accessibility_fault_in_the_runner(fresh, browser):
    def ready(page):
        page.get_by_role("button", name="Keep and practise").click()
        page.get_by_role("button", name=re.compile("cautions: begin")).click()
        return page.get_by_test_id("count")

    check_accessibility(browser, fresh.address + "/plan", ready=ready)
