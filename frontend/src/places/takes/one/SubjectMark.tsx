import type { MouseEvent } from "react";
import {
  useMarkSubject,
  useSubject,
  type PointPath,
  type SubjectAnswer,
} from "../../../api/subject";
import { nearest } from "../../../charts/ridge";
import type { ClipFacts } from "../../../api/client";
import * as format from "../../../formats";
import { Button } from "../../../ui/Button";
import { useNotices } from "../../../ui/notices";
import { useKeys } from "../../../keys/useKeys";
import { usePlayhead, useTime } from "./playhead";

type Props = {
  id: number;
  clip: ClipFacts;
  marking: Marking;
  onMarking: (marking: Marking) => void;
};

/** What the next click in the picture marks: a subject, another point of it, or nothing. */
export type Marking = "subject" | "second" | null;

/**
 * Over the picture: M begins to mark, then a click says where the subject is, or M again for the
 * middle. X marks a second point of it. Rings show where they were followed to.
 */
export function SubjectLayer({ id, clip, marking, onMarking }: Props) {
  const found = useSubject(id);
  const mark = useMarkSubject(id);
  const playhead = usePlayhead();
  const put = (x: number, y: number) => {
    onMarking(null);
    mark.mutate({ at_s: playhead.time(), x, y, second: marking === "second" });
  };
  const marked = (found.data?.t_s.length ?? 0) > 0;
  useKeys({
    "Mark a subject; again for the middle": {
      m: () => (marking ? put(0.5, 0.5) : onMarking("subject")),
    },
    ...(marked ? { "Mark a second point of it": { x: () => onMarking("second") } } : {}),
  });
  // A whole click, so that none of it reaches the picture, which would play.
  const take = (event: MouseEvent<HTMLButtonElement>) => {
    if (event.detail === 0) return put(0.5, 0.5);
    const box = event.currentTarget.getBoundingClientRect();
    put((event.clientX - box.left) / box.width, (event.clientY - box.top) / box.height);
  };
  return (
    <>
      {found.data && marked && <Rings subject={found.data} clip={clip} />}
      {marking && (
        <button
          type="button"
          aria-label="Click what to mark; Enter marks the middle"
          className="absolute inset-0 cursor-crosshair border-2 border-lamp"
          data-testid="marking"
          onClick={take}
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

type Spot = { x: number; y: number };

/** Where a followed point is at a moment, in the picture's own pixels; null where it is lost. */
function spotAt(path: PointPath, t: number, clip: ClipFacts): Spot | null {
  const at = nearest(path.t_s, t);
  const [x, y] = [path.x_pct[at], path.y_pct[at]];
  if (x == null || y == null) return null;
  const long = Math.max(clip.width, clip.height);
  return { x: clip.width / 2 + (x * long) / 100, y: clip.height / 2 + (y * long) / 100 };
}

/** The marks from which a subject is followed again as it was: its first point, then its second. */
function marksOf(found: SubjectAnswer, clip: ClipFacts) {
  const paths: [PointPath | null, boolean][] = [
    [found, false],
    [found.second, true],
  ];
  return paths.flatMap(([path, second]) => {
    const first = path?.x_pct.findIndex((value) => value !== null) ?? -1;
    const at_s = path?.t_s[first];
    const spot = path && at_s !== undefined ? spotAt(path, at_s, clip) : null;
    if (spot === null || at_s === undefined) return [];
    return [{ at_s, x: spot.x / clip.width, y: spot.y / clip.height, second }];
  });
}

function Rings({ subject, clip }: { subject: SubjectAnswer; clip: ClipFacts }) {
  const t = useTime();
  const first = spotAt(subject, t, clip);
  const second = subject.second && spotAt(subject.second, t, clip);
  const long = Math.max(clip.width, clip.height);
  return (
    <svg
      viewBox={`0 0 ${clip.width} ${clip.height}`}
      className="pointer-events-none absolute inset-0 h-full w-full"
      aria-hidden="true"
      data-testid="rings"
    >
      <g fill="none" stroke="var(--lamp)" strokeWidth={long / 300}>
        {first && <circle cx={first.x} cy={first.y} r={long / 40} />}
        {second && <circle cx={second.x} cy={second.y} r={long / 60} />}
        {first && second && (
          <line
            x1={first.x}
            y1={first.y}
            x2={second.x}
            y2={second.y}
            strokeDasharray={`${long / 100} ${long / 100}`}
          />
        )}
      </g>
      {first && (
        <path
          d={`M${clip.width / 2 - long / 60} ${clip.height / 2}h${long / 30}M${clip.width / 2} ${clip.height / 2 - long / 60}v${long / 30}`}
          stroke="#fff"
          strokeWidth={long / 600}
        />
      )}
    </svg>
  );
}

/** What the marked subject says of the shot. */
export function SubjectNotes({ id, clip }: { id: number; clip: ClipFacts }) {
  const found = useSubject(id).data;
  const mark = useMarkSubject(id);
  const { notify, fail } = useNotices();
  const letGo = () => {
    const again = found ? marksOf(found, clip) : [];
    mark.mutate(null, {
      onError: fail,
      onSuccess: () =>
        notify({
          text: "The subject is let go.",
          undo: () =>
            void (async () => {
              for (const one of again) await mark.mutateAsync(one);
            })().catch(fail),
        }),
    });
  };
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
      <Button look="bare" onClick={letGo}>
        Let it go
      </Button>
    </p>
  );
}
