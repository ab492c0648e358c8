import type { PointerEvent } from "react";
import { useMarkSubject, useSubject, type SubjectAnswer } from "../../../api/subject";
import { nearest } from "../../../charts/ridge";
import type { ClipFacts } from "../../../api/client";
import * as format from "../../../formats";
import { Button } from "../../../ui/Button";
import { useKeys } from "../../../keys/useKeys";
import { usePlayhead, useTime } from "./playhead";

type Props = {
  id: number;
  clip: ClipFacts;
  marking: boolean;
  onMarking: (marking: boolean) => void;
};

/**
 * Over the picture: M begins to mark, then a click says where the subject is, or M again for the
 * middle. A ring shows where it was followed to.
 */
export function SubjectLayer({ id, clip, marking, onMarking }: Props) {
  const found = useSubject(id);
  const mark = useMarkSubject(id);
  const playhead = usePlayhead();
  const put = (x: number, y: number) => {
    onMarking(false);
    mark.mutate({ at_s: playhead.time(), x, y });
  };
  useKeys({
    "Mark a subject; again for the middle": {
      m: () => (marking ? put(0.5, 0.5) : onMarking(true)),
    },
  });
  const take = (event: PointerEvent<HTMLDivElement>) => {
    const box = event.currentTarget.getBoundingClientRect();
    put((event.clientX - box.left) / box.width, (event.clientY - box.top) / box.height);
  };
  return (
    <>
      {found.data && found.data.t_s.length > 0 && <Ring subject={found.data} clip={clip} />}
      {marking && (
        <div
          className="absolute inset-0 cursor-crosshair border-2 border-lamp"
          data-testid="marking"
          onPointerDown={take}
        />
      )}
      {mark.error && (
        <p
          className="absolute bottom-2 left-2 bg-paper px-2 text-note text-ember-deep"
          role="alert"
        >
          {mark.error.message}
        </p>
      )}
      {mark.isPending && (
        <p className="absolute bottom-2 left-2 bg-paper px-2 text-note" role="status">
          Following the subject…
        </p>
      )}
    </>
  );
}

function Ring({ subject, clip }: { subject: SubjectAnswer; clip: ClipFacts }) {
  const t = useTime();
  const at = nearest(subject.t_s, t);
  const [x, y] = [subject.x_pct[at], subject.y_pct[at]];
  if (x == null || y == null) return null;
  const long = Math.max(clip.width, clip.height);
  return (
    <svg
      viewBox={`0 0 ${clip.width} ${clip.height}`}
      className="pointer-events-none absolute inset-0 h-full w-full"
      aria-hidden="true"
    >
      <circle
        cx={clip.width / 2 + (x * long) / 100}
        cy={clip.height / 2 + (y * long) / 100}
        r={long / 40}
        fill="none"
        stroke="var(--lamp)"
        strokeWidth={long / 300}
      />
      <path
        d={`M${clip.width / 2 - long / 60} ${clip.height / 2}h${long / 30}M${clip.width / 2} ${clip.height / 2 - long / 60}v${long / 30}`}
        stroke="#fff"
        strokeWidth={long / 600}
      />
    </svg>
  );
}

/** What the marked subject says of the shot. */
export function SubjectNotes({ id }: { id: number }) {
  const found = useSubject(id).data;
  const mark = useMarkSubject(id);
  if (!found || found.t_s.length === 0) return null;
  return (
    <p className="mt-1 flex flex-wrap items-center gap-x-3 text-note" data-testid="subject">
      {found.rms_pct === null ? (
        <span>The subject was not seen during the move.</span>
      ) : (
        <span>
          The subject stays <b>{format.percentOfWidth(found.rms_pct)}</b> from the middle, at worst{" "}
          {format.percentOfWidth(found.worst_pct)} at {format.seconds(found.worst_s)}
          {found.followed < 0.95 && `; seen in ${format.share(found.followed)} of the frames`}.
        </span>
      )}
      <Button look="bare" onClick={() => mark.mutate(null)}>
        Let it go
      </Button>
    </p>
  );
}
