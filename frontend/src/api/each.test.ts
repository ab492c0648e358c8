import { MutationObserver, QueryClient } from "@tanstack/react-query";
import { expect, test } from "vitest";
import { each } from "./each";

test("of changes sent quickly each is told of, those that fail too", async () => {
  const mutationFn = (name: string) =>
    name === "b" ? Promise.reject(new Error(name)) : Promise.resolve(name);
  const change = new MutationObserver(new QueryClient(), { mutationFn });
  const told: string[] = [];
  for (const name of ["a", "b", "c"]) {
    each({ mutateAsync: (sent: string) => change.mutate(sent) }, name, {
      onSuccess: (done) => told.push(done),
      onError: (error) => told.push(`no ${(error as Error).message}`),
    });
  }
  await new Promise((done) => setTimeout(done, 20));
  expect(told.sort()).toEqual(["a", "c", "no b"]);
});
