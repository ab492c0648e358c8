import type { TakeLine } from "../../../api/client";
import { useTake } from "../../../api/takes";
import * as format from "../../../formats";
import { LoopedFilm } from "../../../ui/LoopedFilm";
import { LookActs } from "../compare/LookActs";
import { CHOICE_WORDS } from "../compare/words";

type Props = { take: TakeLine; playing: boolean; onPlaying: (playing: boolean) => void };

/** The chosen take beside the list: what its verdict keeps of it, over and over. */
export function Beside({ take, playing, onPlaying }: Props) {
  const detail = useTake(take.id).data;
  const judgement = detail?.take.id === take.id ? detail.judgement : null;
  const verdict = judgement?.remedies.find((one) => one.remedy === judgement.verdict);
  const part =
    verdict?.start_s == null ? detail?.part : { from_s: verdict.start_s, to_s: verdict.end_s };
  const pictured = take.state === "done" && take.pictured;
  return (
    <aside
      aria-label="Chosen take"
      className="hidden border-l border-line p-4 lg:sticky lg:top-0 lg:block lg:self-start"
    >
      {pictured && (
        <LoopedFilm
          src={`/api/takes/${take.id}/film`}
          from={part?.from_s ?? 0}
          to={part?.to_s ?? null}
          playing={playing}
          label={take.name}
          poster={`/api/takes/${take.id}/still`}
          testId="beside"
          className="rounded aspect-video w-full bg-ridge-5 object-contain"
        />
      )}
      <p className="mt-3 leading-tight font-semibold" aria-live="polite">
        {take.name}
        {take.choice && (
          <span className="text-stone">, {CHOICE_WORDS[take.choice].toLowerCase()}</span>
        )}
      </p>
      {judgement && (
        <p className="mt-1 text-note">
          {part && pictured && (
            <span className="text-stone">
              Plays {format.seconds(part.from_s)} to {format.seconds(part.to_s ?? take.duration_s)}
              .{" "}
            </span>
          )}
          {judgement.text}
        </p>
      )}
      {judgement && judgement.causes.length > 0 && (
        <ul className="mt-2 text-note">
          {judgement.causes.map((cause) => (
            <li key={cause.key}>
              <b className="font-semibold">{cause.name}.</b> {cause.change}
            </li>
          ))}
        </ul>
      )}
      <LookActs id={take.id} pictured={pictured} playing={playing} onPlaying={onPlaying} />
    </aside>
  );
}
