// @vitest-environment happy-dom
import { expect, it } from "vitest";
import {
  dataOf, explained, ExplainedError, isChangedElsewhere, isCrowded, isUnreachable, UNREACHABLE,
} from "./client"; // prettier-ignore

const body = { error: { code: "crowded", message: "It is busy.", hint: "Wait.", field: "a.b" } };

it("hands on what was answered, also where that is nothing or false", async () => {
  for (const data of [{ a: 1 }, null, 0, false, ""])
    expect(await dataOf(Promise.resolve({ data }))).toBe(data);
});

it("throws what the server explained, with all that it said", async () => {
  const error = await dataOf(Promise.resolve({ error: body })).catch((one: unknown) => one);
  expect(error).toBeInstanceOf(ExplainedError);
  expect(error).toMatchObject({
    message: "It is busy.",
    hint: "Wait.",
    code: "crowded",
    field: "a.b",
  });
  expect(isCrowded(error as Error)).toBe(true);
  expect(isUnreachable(error as Error)).toBe(false);
});

it("says that nothing answers where nothing did, or not in our own words", async () => {
  const broken = [Promise.reject(new TypeError("network")), Promise.resolve({ error: "<html>" }),
    Promise.resolve({})]; // prettier-ignore
  for (const asked of broken) {
    const error = await dataOf(asked as Promise<{ data?: unknown }>).catch((one: unknown) => one);
    expect(isUnreachable(error as Error)).toBe(true);
    expect(error).toMatchObject(UNREACHABLE);
  }
});

it("knows a change in another window by its code alone", () => {
  const elsewhere = explained({ error: { ...body.error, code: "changed_elsewhere" } });
  expect(isChangedElsewhere(elsewhere)).toBe(true);
  expect(isChangedElsewhere(explained(body))).toBe(false);
  expect(isChangedElsewhere(new Error("changed_elsewhere"))).toBe(false);
  expect(explained(null).code).toBeNull();
});
