import type { PlannedShot } from "../../api/outings";
import { arrowsOf, frameOf, HEIGHT, hillsPath, personPath, thingPath, WIDTH } from "./frame";

type Props = { shot: PlannedShot; words?: string; className?: string };

/** What a shot will look like, computed from how it is planned. */
export function ShotFrame({ shot, words, className = "block w-full" }: Props) {
  const { horizon, subject, near } = frameOf(shot);
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      className={className}
      {...(words ? { role: "img", "aria-label": words } : { "aria-hidden": true })}
    >
      <rect width={WIDTH} height={HEIGHT} fill="var(--paper)" />
      <rect
        y={horizon}
        width={WIDTH}
        height={Math.max(0, HEIGHT - horizon)}
        fill="var(--ridge-1)"
      />
      {horizon > 0 && horizon < HEIGHT && <path d={hillsPath(horizon)} fill="var(--ridge-2)" />}
      {subject ? (
        <path
          d={subject.kind === "person" ? personPath(subject, 80) : thingPath(subject, 80)}
          fill="var(--ridge-4)"
        />
      ) : (
        <g fill="none" stroke="var(--ridge-4)" strokeWidth="7">
          {[18, 36, 54, 72, 90].map((r) => (
            <circle key={r} cx="58" cy="60" r={r} />
          ))}
        </g>
      )}
      {near && <path d="M0 90V34q10-10 16 6q10-14 18 10q12-4 14 40Z" fill="var(--ridge-5)" />}
      <g fill="none" stroke="var(--ember)" strokeWidth="2.6" strokeLinecap="round">
        {arrowsOf(shot).map(({ d, dashed }) => (
          <path key={d} d={d} strokeDasharray={dashed ? "1 6" : undefined} />
        ))}
      </g>
      <rect
        x="0.5"
        y="0.5"
        width={WIDTH - 1}
        height={HEIGHT - 1}
        fill="none"
        stroke="var(--ridge-2)"
      />
    </svg>
  );
}
