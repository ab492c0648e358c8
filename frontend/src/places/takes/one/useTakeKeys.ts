import { useNavigate } from "react-router";
import type { RemedyLine, TakeDetail } from "../../../api/client";
import type { Choice } from "../../../api/decisions";
import type { KeyWords } from "../../../keys/register";
import { useKeys } from "../../../keys/useKeys";
import { useSettle } from "../compare/useSettle";
import type { Playhead } from "./playhead";

const SECOND = 1;

type Asked = {
  detail: TakeDetail;
  /** Another take is on its way: keys wait for it. */
  comes: boolean;
  playhead: Playhead;
  /** A preview is open; it has the keys of its own. */
  previewing: boolean;
  onPlay: (remedy: RemedyLine) => void;
  onPreview: (remedy: RemedyLine["remedy"]) => void;
  onMark: (smooth: boolean) => void;
  onFiner: () => void;
  onDelete: () => void;
  onName: () => void;
  onLike: () => void;
};

/** The keys of a take. */
export function useTakeKeys(asked: Asked): void {
  const { detail, playhead, previewing, onPlay, onPreview, onMark, onFiner, onDelete, onName } =
    asked;
  const { comes, onLike } = asked;
  const { judgement, clip } = detail;
  const navigate = useNavigate();
  const go = (to: number | null) => to !== null && void navigate(`/takes/${to}`);
  const settle = useSettle();
  const choose = (choice: Choice) =>
    settle(detail.take, detail.take.choice === choice ? null : choice);
  const lee = judgement?.lee;
  const fps = clip?.fps ?? 25;
  const always: KeyWords = {
    "See the verdict rendered": {
      p: () => {
        const remedy = worthSeeing(judgement?.remedies ?? [], judgement?.verdict);
        if (remedy) onPreview(remedy.remedy);
      },
    },
    "Keep it": { k: () => choose("keep") },
    "Reject it": { d: () => choose("reject") },
    "Film it again": { a: () => choose("retake") },
    "Bands and spectrum": { s: onFiner },
    "Earlier or later take": {
      ArrowUp: () => go(detail.before_id),
      ArrowDown: () => go(detail.after_id),
    },
    "Delete this take": { Delete: onDelete },
  };
  const own: KeyWords = {
    "Play the verdict": {
      Enter: () => {
        const chosen = judgement?.remedies.find((one) => one.remedy === judgement.verdict);
        if (chosen) onPlay(chosen);
      },
    },
    "Play or pause": { " ": () => playhead.toggle() },
    "One frame back or on": {
      ArrowLeft: () => playhead.step(-1, fps),
      ArrowRight: () => playhead.step(1, fps),
    },
    "One second back or on": {
      "Shift+ArrowLeft": () => playhead.seek(playhead.time() - SECOND),
      "Shift+ArrowRight": () => playhead.seek(playhead.time() + SECOND),
    },
    "To the start": { Home: () => playhead.seek(0) },
    "Loop the lee": {
      c: () =>
        lee && playhead.setLoop(playhead.loop() ? null : { from: lee.start_s, to: lee.end_s }),
    },
    "Smooth to you, or not": { y: () => onMark(true), n: () => onMark(false) },
    Rename: { r: onName },
    "A brief like it": { b: onLike },
    "Back to the list": { Escape: () => void navigate("/takes") },
  };
  const shown = previewing ? always : { ...own, ...always };
  useKeys(comes ? waiting(shown) : shown);
}

/** The same keys, which do nothing yet. */
function waiting(words: KeyWords): KeyWords {
  return Object.fromEntries(
    Object.entries(words).map(([said, keys]) => [
      said,
      Object.fromEntries(Object.keys(keys).map((key) => [key, () => undefined])),
    ]),
  );
}

/** The verdict where it can be seen, else what would leave least. */
function worthSeeing(
  remedies: RemedyLine[],
  verdict: string | null | undefined,
): RemedyLine | undefined {
  const seen = remedies.filter((one) => one.gust !== null && one.start_s !== null);
  const treated = seen.filter((one) => one.remedy !== "keep");
  return (
    seen.find((one) => one.remedy === verdict) ??
    treated.sort((a, b) => (a.gust ?? 10) - (b.gust ?? 10))[0] ??
    seen[0]
  );
}
