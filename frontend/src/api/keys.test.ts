import { QueryClient, QueryObserver } from "@tanstack/react-query";
import { describe, expect, it, vi } from "vitest";
import { keys, markOutOfDate, type Change } from "./keys";

const BRIEF = { feel: "locked" };
const RECIPE = { remedy: "polish" };

/** What is read again after a change, of one answer of each kind. */
function readAgain(change: Change): string[] {
  const cache = new QueryClient();
  const kept = [
    keys.takes({ sort: "name" }),
    keys.take(3),
    keys.path(3),
    keys.log(3),
    keys.remedyDetails(3, BRIEF),
    keys.windows(3, RECIPE, BRIEF),
    keys.renders(3),
    keys.compare({ session: 1 }),
    keys.eye(),
    keys.blind(7),
    keys.plan({ minutes: 20 }),
    keys.session(1),
    keys.weights(),
  ];
  for (const key of kept) cache.setQueryData(key, "kept");
  markOutOfDate(cache, change);
  return kept.filter((key) => cache.getQueryState(key)?.isInvalidated).map((key) => String(key[0]));
}

describe("a change", () => {
  it("of a brief is seen wherever a verdict stands, and leaves what was measured", () => {
    const again = readAgain("verdicts");
    expect(again).toEqual(["takes", "take", "remedyDetails", "windows", "compare", "eye"]);
  });
  it("of a lens reaches the path too, since a log turns by angles", () => {
    expect(readAgain("kit")).toEqual([
      "takes",
      "take",
      "path",
      "remedyDetails",
      "windows",
      "compare",
      "eye",
    ]);
  });
  it("never shuffles the takes that are marked blind", () => {
    const changes: Change[] = ["films", "verdicts", "kit", "choices", "marks", "logs", "sessions"];
    for (const change of changes) expect(readAgain(change)).not.toContain("blind");
  });
  it("of a log is read again with its path, and of a render alone", () => {
    expect(readAgain("logs")).toEqual(["takes", "take", "path", "log"]);
    expect(readAgain("renders")).toEqual(["renders"]);
  });
  it("is seen by what is asked for the first time while it happens", async () => {
    const cache = new QueryClient();
    const answers: ((answer: string) => void)[] = [];
    const queryFn = () => new Promise<string>((resolve) => answers.push(resolve));
    const shown = new QueryObserver(cache, { queryKey: keys.renders(3), queryFn, retry: false });
    const leave = shown.subscribe(() => undefined);
    markOutOfDate(cache, "renders");
    await vi.waitFor(() => expect(answers).toHaveLength(2));
    answers[0]?.("before");
    answers[1]?.("after");
    await vi.waitFor(() => expect(shown.getCurrentResult().isFetching).toBe(false));
    expect(shown.getCurrentResult()).toMatchObject({ data: "after", isError: false });
    leave();
  });
  it("of a session is seen in the plan, and in the list, where what is filed changes its name", () => {
    expect(readAgain("sessions")).toEqual(["takes", "plan"]);
  });
});
