import "./alone.css";
import type { SessionDetail, SessionTake } from "../../../api/practice";
import { lastFilmed } from "../lastFilmed";
import { runnerAt, turn, type RunnerEffect, type RunnerEvent } from "../runner";
import { Sound, Voice } from "../sound";
import { clockWords, CUE_WORDS, cuesOf, firstOpen, secondsLeft, spokenOf, stepsOf } from "../steps";
import { buzz } from "../vibration";
import { keepNotes, keptNotes } from "./keeping";
import { notesOf } from "./notes";

/** A session in one file: it runs, sounds, shows its slates and keeps its notes where no server is. */
type Kept = { detail: SessionDetail; slates: string[] };

const { detail, slates } = JSON.parse(
  document.getElementById("session")?.textContent ?? "{}",
) as Kept;
const { session } = detail;
const KEPT_AS = `ridgewind-alone-${session.id}`;
const TICK_MS = 100;
const VOLUME = 0.8;

const takes: SessionTake[] = session.takes.map((take) => ({ ...take }));
for (const one of keptNotes(KEPT_AS) as SessionTake[])
  Object.assign(takes[one.position] ?? {}, one);
const now: SessionDetail = { ...detail, session: { ...session, takes } };
const steps = stepsOf(now);
const speed = Number(new URLSearchParams(location.search).get("speed") ?? 1) || 1;
const sound = new Sound();
const voice = new Voice();
let state = runnerAt(firstOpen(steps, now));
let awake: Promise<WakeLockSentinel | null> = Promise.resolve(null);

function note(position: number, part: Partial<SessionTake>) {
  Object.assign(takes[position] ?? {}, part);
  keepNotes(KEPT_AS, takes);
}

function act(effect: RunnerEffect) {
  if (effect.type === "silence") {
    sound.cancel();
    voice.hush();
  } else if (effect.type === "note") {
    const filmed_at = effect.state === "filmed" ? new Date().toISOString() : null;
    note(effect.position, { state: effect.state, filmed_at });
  } else if (effect.type === "sounds" || effect.type === "say") {
    const step = steps[effect.step];
    const block = step && session.plan.blocks[step.block];
    if (!step || !block) return;
    const drill = detail.drills[block.drill_key];
    if (effect.type === "sounds") {
      const asked = { drill, cadenceHz: detail.cadence_hz, rests: block.rest_s > 0 };
      sound.schedule(cuesOf(step, asked), effect.from, speed);
    } else {
      buzz(step.kind);
      const said = spokenOf(step, drill, takes[step.position]?.variation_key ?? "");
      voice.say(said, { volume: VOLUME, speed });
    }
  }
}

function happen(event: RunnerEvent) {
  const next = turn(state, event, { steps, speed });
  state = next.state;
  next.effects.forEach(act);
  draw();
}

function toggle() {
  if (state.running) return happen({ type: "pause" });
  sound.start();
  awake = navigator.wakeLock?.request("screen").catch(() => null) ?? Promise.resolve(null);
  happen({ type: "go", now: sound.now() });
}

const at = (id: string) => {
  const element = document.getElementById(id);
  if (!element) throw new Error(`there is no ${id}`);
  return element;
};

function draw() {
  const step = steps[state.at];
  const face = at("face");
  face.className = step?.kind ?? "done";
  face.dataset["position"] = String(step?.position ?? -1);
  at("toggle").textContent = state.running ? "Pause" : state.elapsed > 0 ? "Go on" : "Start";
  const noted = lastFilmed(now, step ?? null);
  at("notes").hidden = !noted || step?.kind === "roll" || step?.kind === "slate";
  for (const button of at("notes").querySelectorAll("button")) {
    const { name = "", value = "" } = button.dataset;
    const given = noted?.[name as "felt" | "wind" | "fatigue" | "tension"];
    button.setAttribute("aria-pressed", String(String(given) === value));
  }
  at("code").innerHTML = step?.kind === "slate" ? (slates[step.position] ?? "") : "";
  if (!step) {
    at("cue").textContent = "All done. Rest.";
    at("what").textContent = "Save the notes, and bring them to the session’s page at the desk.";
    for (const id of ["count", "how", "place"]) at(id).textContent = "";
    void awake.then((lock) => lock?.release());
    return;
  }
  const take = takes[step.position];
  const drill = take && detail.drills[take.drill_key];
  const variation = drill?.variations.find((one) => one.key === take?.variation_key);
  const left = step.seconds + state.grown - state.elapsed;
  const short = step.kind === "roll" || step.kind === "count";
  at("cue").textContent = state.running ? CUE_WORDS[step.kind] : "Paused";
  at("count").textContent = short ? String(Math.max(1, Math.ceil(left))) : clockWords(left);
  at("what").textContent = [drill?.name, variation?.name.toLowerCase()].filter(Boolean).join(" · ");
  at("how").textContent =
    step.kind === "set-up"
      ? (drill?.set_up.join(" ") ?? "")
      : (variation?.how ?? drill?.move ?? "");
  at("place").textContent =
    `Take ${step.position + 1} of ${takes.length} · ` +
    `${clockWords(secondsLeft(steps, state.at, state.elapsed))} to go`;
}

function save() {
  const text = JSON.stringify(notesOf(session.id, takes), null, 1);
  const link = document.createElement("a");
  link.href = URL.createObjectURL(new Blob([text], { type: "application/json" }));
  link.download = `ridgewind notes of session ${session.id}.json`;
  link.click();
}

at("toggle").onclick = toggle;
at("repeat").onclick = () => happen({ type: "repeat", now: sound.now() });
at("skip").onclick = () => happen({ type: "skip", now: sound.now() });
at("undo").onclick = () => happen({ type: "undo", now: sound.now() });
at("save").onclick = save;
at("notes").onclick = (event) => {
  const { name, value } = (event.target as HTMLElement).dataset;
  const noted = lastFilmed(now, steps[state.at] ?? null);
  if (!name || !noted) return;
  note(noted.position, { [name]: name === "felt" ? value : Number(value) });
  draw();
};
document.onkeydown = (event) => {
  if (event.key === " ") toggle();
  else if (event.key === "ArrowRight") happen({ type: "skip", now: sound.now() });
  else if (event.key === "ArrowLeft") happen({ type: "repeat", now: sound.now() });
  else if (event.key === "z") happen({ type: "undo", now: sound.now() });
  else return;
  event.preventDefault();
};
setInterval(() => {
  if (state.running) happen({ type: "tick", now: sound.now(), awaited: false });
}, TICK_MS);
draw();
