/** Figures of an axis, each with as many decimals as the finest of them needs. */
export function tickWords(ticks: readonly number[]): string[] {
  const plain = ticks.map((tick) => String(Number(tick.toPrecision(10))));
  const digits = Math.max(0, ...plain.map((text) => text.split(".")[1]?.length ?? 0));
  return ticks.map((tick) => tick.toFixed(digits).replace("-", "−"));
}
