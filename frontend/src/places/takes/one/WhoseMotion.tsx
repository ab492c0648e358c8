import type { ShotDoubt, TakeDetail } from "../../../api/client";
import { useForgetWhoseMotion, useSayWhoseMotion } from "../../../api/takes";
import { useLeaveOutSubject } from "../../../api/points";
import { useSubject } from "../../../api/subject";
import { each } from "../../../api/each";
import * as format from "../../../formats";
import { Button } from "../../../ui/Button";
import { useNotices } from "../../../ui/notices";
import { background, question } from "./whoseWords";

type Props = { detail: TakeDetail; onName: () => void };

/** Whose motion the figures are of: asked where it is in doubt, else told and open to correction. */
export function WhoseMotion({ detail, onName }: Props) {
  const leaveOut = useLeaveOutSubject(detail.take.id);
  const marked = (useSubject(detail.take.id).data?.t_s.length ?? 0) > 0;
  const say = useSayWhoseMotion(detail.take.id);
  const forget = useForgetWhoseMotion(detail.take.id);
  const { notify, fail } = useNotices();
  const asked = detail.doubts.filter(
    (one) =>
      one.doubt !== null || one.said || one.rivals.slice(1).some((other) => other.gust !== null),
  );
  if (asked.length === 0 && detail.background.length === 0) return null;
  const takeBack = () => each(forget, undefined, { onError: fail });
  const without = () =>
    each(leaveOut, undefined, {
      onSuccess: () => notify({ text: "Judged without what you marked.", undo: takeBack }),
      onError: fail,
    });
  const choose = (shot: number, rival: number) =>
    each(
      say,
      { shot, rival },
      {
        onSuccess: () => notify({ text: "Judged by your word.", undo: takeBack }),
        onError: fail,
      },
    );
  return (
    <section aria-label="Whose motion is it" className="px-4 pb-2 sm:px-8">
      <div className="flex flex-wrap items-center gap-x-2 border-l-2 border-lamp py-0.5 pl-3">
        {asked.map((one) => (
          <ShotQuestion
            key={one.shot}
            asked={one}
            alone={asked.length === 1}
            busy={say.isPending || forget.isPending}
            onChoose={(rival) => choose(one.shot, rival)}
            onTakeBack={takeBack}
          />
        ))}
        <p className="-ml-[11px] flex flex-wrap items-center gap-2">
          {detail.background.length > 0 && (
            <>
              <span className="pl-[11px] text-note">
                Measured by the part of the picture that you named.
              </span>
              <Button look="bare" disabled={forget.isPending} onClick={takeBack}>
                Take it back
              </Button>
            </>
          )}
          {marked && (
            <Button look="bare" disabled={leaveOut.isPending} onClick={without}>
              Leave out what I marked
            </Button>
          )}
          <Button look="bare" onClick={onName}>
            Show where the background is
          </Button>
        </p>
      </div>
    </section>
  );
}

type QuestionProps = {
  asked: ShotDoubt;
  alone: boolean;
  busy: boolean;
  onChoose: (rival: number) => void;
  onTakeBack: () => void;
};

function ShotQuestion({ asked, alone, busy, onChoose, onTakeBack }: QuestionProps) {
  const span = alone ? "" : `${format.span(asked.start_s, asked.end_s)}: `;
  const first = asked.doubt === null ? 1 : 0;
  return (
    <div
      className={
        alone && asked.doubt === null ? "flex flex-wrap items-center gap-x-2" : "w-full pb-1"
      }
    >
      <p className={asked.doubt ? "" : "text-note"}>
        {span}
        {question(asked)}
      </p>
      <p className={`flex flex-wrap gap-2 ${asked.doubt ? "mt-1.5" : "-ml-[11px]"}`}>
        {asked.rivals.map((rival, index) =>
          index < first || rival.gust === null ? null : (
            <Button
              key={index}
              disabled={busy}
              look={asked.doubt ? "quiet" : "bare"}
              onClick={() => onChoose(index)}
            >
              {background(rival, asked.rivals.length)}
              <span className="figure text-stone">gust {format.gust(rival.gust)}</span>
            </Button>
          ),
        )}
        {asked.said && !asked.by_log && (
          <Button look="bare" disabled={busy} onClick={onTakeBack}>
            Take it back
          </Button>
        )}
      </p>
    </div>
  );
}
