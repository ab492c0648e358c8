// @vitest-environment happy-dom
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { act, cleanup, renderHook } from "@testing-library/react";
import type { ReactNode } from "react";
import { afterEach, expect, it, vi } from "vitest";
import { client, type Brief, type TakeDetail } from "./client";
import { keys } from "./keys";
import { useChangeBrief } from "./takes";

afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
});

it("shows the last change, whatever an earlier answer says", async () => {
  const waits: (() => void)[] = [];
  vi.spyOn(client, "PUT").mockImplementation(
    ((_path: string, { body }: { body: Brief }) =>
      new Promise((go) =>
        waits.push(() =>
          go({ data: { brief: body, take: { id: 7 } }, response: new Response("{}") }),
        ),
      )) as never,
  );
  const cache = new QueryClient();
  const shown = () => cache.getQueryData<TakeDetail>(keys.take(7))?.brief.feel;
  cache.setQueryData(keys.take(7), { brief: { feel: "smooth" }, take: { id: 7 } });
  const wrapper = ({ children }: { children: ReactNode }) => (
    <QueryClientProvider client={cache}>{children}</QueryClientProvider>
  );
  const { result } = renderHook(() => useChangeBrief(7), { wrapper });
  const next = () => act(async () => void (await Promise.resolve().then(() => waits.shift()?.())));
  await act(async () => {
    result.current.mutate({ feel: "alive" } as Brief);
    result.current.mutate({ feel: "raw" } as Brief);
  });
  expect(shown()).toBe("raw");
  await next(); // the answer to the first
  expect(shown()).toBe("raw");
  await next();
  expect(shown()).toBe("raw");
  expect(waits).toHaveLength(0);
});
