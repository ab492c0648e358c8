import { describe, expect, it } from "vitest";
import type { Machine, Seat } from "../../api/workers";
import { lastHere, seatWords } from "./workers";

const seat: Seat = {
  id: 1,
  cores: 8,
  doing: null,
  film: "",
  done: null,
  speed: null,
  ended: 0,
  stopping: false,
};
const machine: Machine = {
  id: 1,
  name: "Desk",
  let_in_at: "2026-05-01T10:00:00Z",
  seen_at: null,
  seats: [],
};

describe("a machine", () => {
  it("says whether it is here", () => {
    expect(lastHere(machine)).toBe("has not come yet");
    expect(lastHere({ ...machine, seats: [seat] })).toBe("here");
    expect(lastHere({ ...machine, seats: [seat, { ...seat, id: 2 }] })).toBe("here, 2 at work");
    expect(lastHere({ ...machine, seen_at: "2026-05-02T10:00:00Z" })).toMatch(/^last here /);
  });
});

describe("a worker", () => {
  it("says what it does and how fast", () => {
    expect(seatWords(seat)).toEqual({ doing: "waits for work", pace: "nothing done yet" });
    const busy: Seat = { ...seat, doing: "measure", film: "Mill door", speed: 2.4, ended: 1 };
    expect(seatWords(busy).doing).toBe("measures Mill door");
    expect(seatWords(busy).pace).toMatch(/as fast as films play, 1 piece of work done$/);
    expect(seatWords({ ...busy, stopping: true }).doing).toBe("stops");
  });
});
