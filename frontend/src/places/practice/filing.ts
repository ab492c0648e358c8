/** A film, or none, under a planned take. */
export type Filed = { position: number; take_id: number | null };

/** What puts everything back: first out of where the films went, then to where they were. */
export function undoing(filed: Filed[], takes: readonly Filed[]): Filed[] {
  const moved = new Set(filed.map((one) => one.take_id));
  const touched = new Set(filed.map((one) => one.position));
  const were = takes.filter((take) => touched.has(take.position) || moved.has(take.take_id));
  return [
    ...filed.map(({ position }) => ({ position, take_id: null })),
    ...were
      .filter((take) => take.take_id !== null)
      .map(({ position, take_id }) => ({ position, take_id })),
  ];
}
