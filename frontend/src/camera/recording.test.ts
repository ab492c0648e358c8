// @vitest-environment happy-dom
import { afterEach, beforeEach, expect, it, vi } from "vitest";
import { record } from "./recording";

/** A recorder of a browser that knows some kinds of film. */
class Recorder {
  static known = ["video/webm"];
  static isTypeSupported = (kind: string) => Recorder.known.includes(kind);
  static last: Recorder;
  state = "inactive";
  mimeType: string;
  ondataavailable: ((event: { data: Blob }) => void) | null = null;
  onstop: (() => void) | null = null;
  constructor(_stream: MediaStream, options: { mimeType?: string }) {
    this.mimeType = options.mimeType ?? "";
    Recorder.last = this;
  }
  start() {
    this.state = "recording";
  }
  gives(...texts: string[]) {
    for (const text of texts) this.ondataavailable?.({ data: new Blob([text]) });
  }
  stop() {
    this.state = "inactive";
    this.gives("end");
    this.onstop?.();
  }
}

beforeEach(() => {
  Recorder.known = ["video/webm"];
  vi.stubGlobal("MediaRecorder", Recorder);
});
afterEach(() => vi.unstubAllGlobals());

const begun = (films: File[]) => record({} as MediaStream, "Live", (film) => films.push(film));

it("hands over all of the film once it is stopped, named by its kind", async () => {
  const films: File[] = [];
  const recording = begun(films);
  Recorder.last.gives("one", "", "two");
  expect(films).toEqual([]);
  recording.stop();
  recording.stop();
  expect(films).toHaveLength(1);
  expect(await films[0]?.text()).toBe("onetwoend");
  expect(films[0]?.name).toMatch(/^Live \d\d\.\d\d\.\d\d\.webm$/);
});

it("prefers the kind that most programs can play", () => {
  Recorder.known = ["video/webm", "video/mp4;codecs=avc1"];
  const films: File[] = [];
  begun(films).stop();
  expect(films[0]?.name.endsWith(".mp4")).toBe(true);
  Recorder.known = [];
  begun(films).stop();
  expect(films[1]?.name.endsWith(".webm")).toBe(true);
});

it("hands over nothing that was dropped, whatever comes after", () => {
  const films: File[] = [];
  const recording = begun(films);
  Recorder.last.gives("one");
  recording.drop();
  recording.stop();
  expect(films).toEqual([]);
});
