import { useQuery } from "@tanstack/react-query";
import { client, dataOf, explained, type components } from "./client";
import { keys } from "./keys";

type Schemas = components["schemas"];
export type LiveAnswer = Schemas["LiveAnswer"];
export type LiveAsk = Schemas["LiveAsk"];
export type LiveSetting = Schemas["LiveSetting"];
export type Rates = Schemas["RatesAsk"];

/** What a meter begins with: the brief and the lens of new takes. */
export function useLiveSetting() {
  return useQuery({
    queryKey: keys.liveSetting(),
    queryFn: ({ signal }) => dataOf(client.GET("/api/live/setting", { signal })),
  });
}

/** Begin a meter; gives its key. */
export async function beginLive(body: Partial<LiveAsk> & Pick<LiveAsk, "target" | "screen">) {
  return (await dataOf(client.POST("/api/live", { body: body as LiveAsk }))).key;
}

/** Feed pictures, row by row, a byte a point. */
export async function feedPictures(
  key: string,
  times_s: readonly number[],
  lumas: BlobPart[],
): Promise<LiveAnswer> {
  const times = times_s.map((one) => one.toFixed(4)).join(",");
  let answer: Response;
  try {
    answer = await fetch(`/api/live/${key}/pictures?times=${times}`, {
      method: "PUT",
      body: new Blob(lumas),
      headers: { "Content-Type": "application/octet-stream" },
    });
  } catch {
    throw explained(null);
  }
  const body: unknown = await answer.json().catch(() => null);
  if (!answer.ok) throw explained(body);
  return body as LiveAnswer;
}

/** Feed the samples of a motion sensor. */
export function feedRates(key: string, body: Rates): Promise<LiveAnswer> {
  return dataOf(client.PUT("/api/live/{key}/rates", { params: { path: { key } }, body }));
}

/** Forget a meter. */
export function endLive(key: string) {
  return client.DELETE("/api/live/{key}", { params: { path: { key } } }).catch(() => undefined);
}

/** What the simulated phone's motion sensor writes. */
export async function simulatedRates(): Promise<string> {
  const answer = await fetch("/api/live/simulated.csv");
  if (!answer.ok) throw explained(await answer.json().catch(() => null));
  return answer.text();
}
