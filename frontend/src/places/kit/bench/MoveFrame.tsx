import type { Move } from "./types";

const LONG = 100;

type Props = { move: Move; aspect: number; at: number; width: number };
type Seen = Move["subject_seen"];

/** What the frame sees: each thing where it starts, dashed, and where it is now. */
export function MoveFrame({ move, aspect, at, width }: Props) {
  const tall = LONG * aspect;
  return (
    <svg
      width={width}
      height={width * aspect}
      viewBox={`${-LONG / 2} ${-tall / 2} ${LONG} ${tall}`}
      role="img"
      aria-label="The frame, with foreground, subject and background at the start and now"
      className="rounded bg-ridge-1"
    >
      <line x1="-4" x2="4" y1="0" y2="0" stroke="var(--stone)" strokeWidth="0.25" />
      <line y1="-4" y2="4" x1="0" x2="0" stroke="var(--stone)" strokeWidth="0.25" />
      <Thing seen={move.background_seen} at={at} roll={move.stations[at]?.roll_deg ?? 0}>
        <path d="M-3 8L-2 -7H2L3 8Z" />
      </Thing>
      <Thing seen={move.subject_seen} at={at} roll={move.stations[at]?.roll_deg ?? 0}>
        <path d="M-5 7Q-8 -3 -2.5 -7H2.5Q8 -3 5 7Z" />
      </Thing>
      <Thing seen={move.foreground_seen} at={at} roll={move.stations[at]?.roll_deg ?? 0}>
        <path d={`M-1.6 ${tall}V-9H1.6V${tall}Z`} />
      </Thing>
    </svg>
  );
}

type ThingProps = { seen: Seen; at: number; roll: number; children: React.ReactNode };

function Thing({ seen, at, roll, children }: ThingProps) {
  const first = seen[0];
  const now = seen[at];
  const place = (one: Seen[number] | undefined, turn: number) =>
    one && one.x_pct !== null && one.y_pct !== null && one.scale !== null
      ? `translate(${one.x_pct} ${-one.y_pct}) rotate(${-turn}) scale(${Math.min(one.scale, 40)})`
      : null;
  const [start, here] = [place(first, 0), place(now, roll)];
  const trail = seen
    .slice(0, at + 1)
    .flatMap((one) =>
      one.x_pct === null || one.y_pct === null ? [] : [`${one.x_pct},${-one.y_pct}`],
    )
    .join(" ");
  return (
    <>
      {start && (
        <g
          transform={start}
          fill="none"
          stroke="var(--ridge-4)"
          strokeWidth="0.35"
          strokeDasharray="1 0.8"
        >
          {children}
        </g>
      )}
      <polyline points={trail} fill="none" stroke="var(--ridge-5)" strokeWidth="0.4" />
      {here && (
        <g transform={here} fill="var(--ridge-3)" stroke="var(--ridge-5)" strokeWidth="0.3">
          {children}
        </g>
      )}
    </>
  );
}
