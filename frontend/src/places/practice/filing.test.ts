import { expect, test } from "vitest";
import { undoing, type Filed } from "./filing";

/** Takes after some were filed, as the server does: a film stands under one take only. */
function after(takes: Filed[], filed: Filed[]): Filed[] {
  return filed.reduce(
    (now, { position, take_id }) =>
      now.map((take) =>
        take.position === position
          ? { position, take_id }
          : { ...take, take_id: take.take_id === take_id ? null : take.take_id },
      ),
    takes,
  );
}

test.each<[string, Filed[]]>([
  ["filed where there was none", [{ position: 2, take_id: 40 }]],
  ["filed over another", [{ position: 0, take_id: 40 }]],
  ["moved from its take", [{ position: 2, take_id: 10 }]],
  ["moved over another", [{ position: 1, take_id: 10 }]],
  ["taken out", [{ position: 0, take_id: null }]],
  [
    "two exchanged",
    [
      { position: 0, take_id: 11 },
      { position: 1, take_id: 10 },
    ],
  ],
])("%s: all of it is put back", (_, filed) => {
  const takes = [
    { position: 0, take_id: 10 },
    { position: 1, take_id: 11 },
    { position: 2, take_id: null },
  ];
  expect(after(after(takes, filed), undoing(filed, takes))).toEqual(takes);
});
