import type { ClipFacts, Judgement } from "../../../api/client";
import * as format from "../../../formats";
import { shownWords } from "./shownWords";

const REPEATED_SHARE = 0.02;
const OUTLIER_SHARE = 0.3;
/** A longer gap between two shots is no cut. */
const LEAP_S = 1;

type Props = { clip: ClipFacts; judgement: Judgement; captureFps: number | null };

/** What a reader of the figures must know: cuts, parts not measured, a file that ends early. */
export function ShotNotes({ clip, judgement, captureFps }: Props) {
  const notes: string[] = [];
  if (captureFps !== null) {
    notes.push(
      `Filmed at ${format.rate(captureFps)} and plays at ${format.rate(clip.fps)}: gust and remedies are of the film as it plays; bands, causes, the move and body speed of what was filmed.`,
    );
  }
  if (judgement.step !== 1) notes.push(shownWords(clip.fps, judgement.step));
  if (clip.claimed_s !== null) {
    notes.push(
      `The file ends early: ${format.seconds(clip.duration_s)} of ${format.seconds(clip.claimed_s)} could be read. Copy it from the card again to have the rest.`,
    );
  }
  if (judgement.shots.length > 1) {
    const parts = judgement.shots.map(
      (shot) =>
        `${format.span(shot.start_s, shot.end_s)} ${shot.reason ?? `gust ${format.gust(shot.gust)}`}`,
    );
    notes.push(`${judgement.shots.length} shots, measured apart: ${parts.join("; ")}.`);
  }
  for (const [number, shot] of judgement.shots.entries()) {
    const before = judgement.shots[number - 1];
    const gap_s = before ? shot.start_s - before.end_s : 0;
    if (before && gap_s > LEAP_S) {
      notes.push(
        `The film’s clock leaps by ${format.seconds(gap_s)} at ${format.seconds(before.end_s)}: the recording was paused, or its times are damaged.`,
      );
    }
  }
  if (clip.interlaced) {
    notes.push(
      `Interlaced, ${format.rate(2 * clip.fps)} fields: its lines belong to two moments. The first of the two is measured, and is what copies and remedies show.`,
    );
  }
  if (clip.starved) {
    notes.push(
      "Compressed so much that fine shake may be lost in the file. Measure the camera’s own file.",
    );
  }
  if (clip.repeated > REPEATED_SHARE) {
    notes.push(
      `${format.share(clip.repeated)} of its frames only repeat the one before; the path is drawn between them.`,
    );
  }
  if (clip.outlier_share > OUTLIER_SHARE) {
    notes.push(
      `No single motion explains the picture: ${format.share(clip.outlier_share)} of it moves otherwise. The figures follow what fills the background.`,
    );
  }
  if (judgement.trusted_share < 0.95) {
    notes.push(
      `${format.share(1 - judgement.trusted_share)} of its frames could not be trusted and are left out.`,
    );
  }
  if (notes.length === 0) return null;
  return (
    <ul className="space-y-0.5 px-4 pb-3 text-note sm:px-8">
      {notes.map((note) => (
        <li key={note} className="border-l-2 border-lamp pl-3">
          {note}
        </li>
      ))}
    </ul>
  );
}
