import { useQueryClient, type Query, type QueryClient, type QueryKey } from "@tanstack/react-query";
import { useCallback } from "react";

/** Under which key each answer of the server is kept, and which a change makes out of date. */
export const keys = {
  status: () => ["status"],
  pulse: () => ["pulse"],
  takes: (filter: unknown) => ["takes", filter],
  narrowings: (filter: unknown) => ["narrowings", filter],
  take: (id: number) => ["take", id],
  path: (id: number) => ["path", id],
  spectrum: (id: number) => ["spectrum", id],
  subject: (id: number) => ["subject", id],
  points: (id: number, from_s: number) => ["points", id, from_s],
  log: (id: number) => ["log", id],
  sentLog: (sending: number) => ["sentLog", sending],
  logPreview: (upload: string, mapping: unknown, focal: number) => [
    "logPreview",
    upload,
    mapping,
    focal,
  ],
  remedyDetails: (id: number, brief: unknown) => ["remedyDetails", id, brief],
  windows: (id: number, asked: unknown, brief: unknown) => ["windows", id, asked, brief],
  renders: (id: number) => ["renders", id],
  folderCopy: (id: number | null) => ["folderCopy", id],
  folderCopies: () => ["folderCopies"],
  compare: (query: unknown) => ["compare", query],
  trials: () => ["trials"],
  hand: (asked: unknown) => ["hand", asked],
  watched: () => ["watched"],
  network: () => ["network"],
  workers: () => ["workers"],
  rigLogs: () => ["rigLogs"],
  liveSetting: () => ["liveSetting"],
  handFilm: (id: number | null) => ["handFilm", id],
  limits: (brief: number | null) => ["limits", brief],
  endurance: (brief: number | null) => ["limits", "endurance", brief],
  progress: (drill: string | null) => ["progress", drill],
  noted: () => ["noted"],
  profile: () => ["profile"],
  shot: (asked: unknown) => ["shot", asked],
  pickedTrial: (asked: unknown) => ["pickedTrial", asked],
  trial: (drill: string | null, by: string | null) => ["trial", drill, by],
  eye: () => ["eye"],
  blind: (seed: number) => ["blind", seed],
  kept: () => ["kept"],
  space: () => ["space"],
  weights: () => ["weights"],
  cleared: () => ["cleared"],
  deleted: () => ["deleted"],
  kit: () => ["kit"],
  briefs: () => ["briefs"],
  bench: (asked: unknown) => ["bench", asked],
  drills: () => ["drills"],
  drillFigure: (key: string | null) => ["drillFigure", key],
  smallFigures: () => ["smallFigures"],
  plan: (ask: unknown) => ["plan", ask],
  sessions: () => ["sessions"],
  session: (id: number) => ["session", id],
  stage: (id: number) => ["stage", id],
  slate: (id: number, position: number) => ["slate", id, position],
  proposals: (id: number) => ["proposals", id],
  outings: () => ["outings"],
  outing: (id: number) => ["outing", id],
  meetings: (id: number) => ["meetings", id],
  joined: (id: number) => ["joined", id],
  betterCuts: (id: number, ...sides: unknown[]) => ["betterCuts", id, ...sides],
  used: (id: number) => ["used", id],
  becameFilm: () => ["becameFilm"],
  sequenceFilm: (id: number, whole: boolean) => ["sequenceFilm", id, whole],
  shotSlate: (id: number) => ["shotSlate", id],
} satisfies Record<string, (...of: never[]) => readonly unknown[]>;

type Answer = keyof typeof keys;

/** What many takes tell together. */
const FINDINGS: Answer[] = [
  "trials",
  "trial",
  "pickedTrial",
  "limits",
  "hand",
  "progress",
  "noted",
  "shot",
  "profile",
];

const VERDICTS: Answer[] = [
  ...FINDINGS,
  "takes",
  "narrowings",
  "take",
  "remedyDetails",
  "windows",
  "compare",
  "eye",
  "drills",
  "kit",
  "briefs",
  "bench",
];

/** What each kind of change makes out of date. */
const OUT_OF_DATE = {
  /** Films came, went, or are being measured. */
  films: [
    ...FINDINGS,
    "pulse",
    "takes",
    "narrowings",
    "take",
    "compare",
    "proposals",
    "drills",
    "eye",
    "cleared",
    "deleted",
    "path",
    "points",
    "meetings",
    "joined",
    "outings",
    "outing",
  ],
  /** Copying from a folder began or was stopped. */
  copies: ["folderCopies", "folderCopy"],
  /** What verdicts depend on: briefs, targets, weights. */
  verdicts: VERDICTS,
  /** What a take was filmed with: set-ups and lenses. A log's path depends on them too. */
  kit: [...VERDICTS, "path", "spectrum", "drillFigure", "smallFigures"],
  /** A take was kept, rejected or is to be filmed again. */
  choices: [...FINDINGS, "takes", "narrowings", "compare", "cleared"],
  /** Many takes were changed at once, or put back. */
  many: [
    ...VERDICTS,
    "pulse",
    "path",
    "spectrum",
    "cleared",
    "deleted",
    "proposals",
    "meetings",
    "joined",
    "outings",
    "outing",
  ],
  /** The shooter's own eye said something. */
  marks: ["renders", "eye"],
  renders: ["renders"],
  /** A take was let into trials, or kept out. */
  counts: FINDINGS,
  /** Originals were put aside, or came back. */
  originals: ["take"],
  /** The shooter said whose motion a take shows. */
  motion: [...VERDICTS, "path", "spectrum", "points"],
  /** A subject was marked or let go, which may be held. */
  subjects: ["takes", "take", "remedyDetails", "windows", "compare", "joined"],
  logs: ["takes", "take", "path", "spectrum", "log"],
  drills: ["drills", "plan"],
  outings: ["outings", "joined", "sequenceFilm"],
  /** Takes were let meet an outing's shots. */
  meetings: ["outings", "outing", "joined", "sequenceFilm", "proposals"],
  sessions: [...FINDINGS, "takes", "narrowings", "sessions", "drills", "proposals", "plan"],
} satisfies Record<string, Answer[]>;

export type Change = keyof typeof OUT_OF_DATE;

/** Marks whatever shows what has changed, so that it is read again. */
export function markOutOfDate(cache: QueryClient, change: Change) {
  for (const answer of OUT_OF_DATE[change]) void askAgain(cache, [answer]);
}

/** Reads again what begins with a key, and ends once what is shown of it is read. What is being
    asked for the first time would not be asked again by itself, and the answer that is on its way
    may be from before the change. */
export function askAgain(cache: QueryClient, queryKey: QueryKey): Promise<void> {
  const first = { queryKey, predicate: ({ state }: Query) => state.data === undefined };
  if (cache.isFetching(first) === 0) return cache.invalidateQueries({ queryKey });
  return cache.cancelQueries(first).then(() => cache.invalidateQueries({ queryKey }));
}

/** Says that something has changed, so that whatever shows it is read again. */
export function useChanged() {
  const cache = useQueryClient();
  return useCallback((change: Change) => markOutOfDate(cache, change), [cache]);
}
