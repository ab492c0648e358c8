import type { MouseEvent } from "react";
import {
  useFollowed,
  useSubject,
  useSubjectAct,
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
  const act = useSubjectAct(id);
  useFollowed(id, found.data);
  const playhead = usePlayhead();
  const put = (x: number, y: number) => {
    onMarking(null);
    const mark = { at_s: playhead.time(), x, y, second: marking === "second" };
    act.mutate({ act: "mark", mark });
  };
  const marked = (found.data?.t_s.length ?? 0) > 0;
  const following = found.data?.following;
  const fault = act.error?.message ?? found.data?.fault;
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
      {fault && (
        <p
          className="absolute bottom-2 left-2 bg-paper px-2 text-note text-ember-deep"
          role="alert"
        >
          {fault}{" "}
          <Button
            look="bare"
            onClick={() => (act.error ? act.reset() : act.mutate({ act: "stop" }))}
          >
            Dismiss
          </Button>
        </p>
      )}
      {following && (
        <p className="absolute bottom-2 left-2 flex items-center gap-3 bg-paper px-2 text-note">
          <span role="status">Following the subject…</span>
          {following.progress !== null && <span>{format.share(following.progress)}</span>}
          <Button look="bare" onClick={() => act.mutate({ act: "stop" })}>
            Stop
          </Button>
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
export function SubjectNotes({ id }: { id: number }) {
  const found = useSubject(id).data;
  const act = useSubjectAct(id);
  const { notify, fail } = useNotices();
  const letGo = () =>
    act
      .mutateAsync({ act: "let go" })
      .then(() => {
        const undo = () => void act.mutateAsync({ act: "bring back" }).catch(fail);
        notify({ text: "The subject is let go.", undo });
      })
      .catch(fail);
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
      <Button look="bare" onClick={() => void letGo()}>
        Let it go
      </Button>
    </p>
  );
}
