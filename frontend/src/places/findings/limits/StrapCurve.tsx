import { PULL_WORDS, PULLS } from "../../../live/pulls";
import { scaleLinear } from "d3-scale";
import type { StrapLine } from "../../../api/limits";
import { around } from "../../../charts/around";
import { TicksUp } from "../../../charts/Ticks";
import * as format from "../../../formats";
import { useWidth } from "../../../ui/useWidth";
import { apart, strapPath } from "./layout";

const HEIGHT = 190;
/** Every other one: there is no room for more. */
const TENSIONS = PULLS.map((pull) => (pull % 2 === 1 ? PULL_WORDS[pull] : ""));

/** Gust over the strap's tension: too little does nothing, too much trembles. */
export function StrapCurve({ strap }: { strap: StrapLine }) {
  const [box, width] = useWidth<HTMLDivElement>();
  const x = scaleLinear([0.7, 5.3], [34, Math.max(width - 10, 35)]);
  const y = around(strap.gusts, HEIGHT - 26, 10);
  const [low, high] = [strap.low ?? 0, strap.high ?? 0];
  const aside = apart(strap.tensions, 7);
  return (
    <section aria-label="Best strap tension" className="min-w-0">
      <h2 className="label-wide">Strap tension</h2>
      <p className="text-note">
        {strap.lowest === null
          ? "No best tension within what you have tried: pull harder or softer, and note it."
          : `Steadiest at ${strap.lowest.toFixed(1)} of 5, between ${low.toFixed(1)} and ${high.toFixed(1)}, of ${format.takes(strap.tensions.length)}.`}
      </p>
      <div ref={box}>
        {width > 0 && (
          <svg width={width} height={HEIGHT} aria-hidden="true">
            {strap.lowest !== null && (
              <rect
                x={x(low)}
                width={Math.max(2, x(high) - x(low))}
                y={10}
                height={HEIGHT - 36}
                fill="var(--lichen-wash)"
              />
            )}
            <TicksUp ticks={y.ticks(4)} y={y} from={34} to={width} />
            {strap.tensions.map((tension, k) => (
              <circle
                key={strap.take_ids[k]}
                cx={x(tension) + (aside[k] ?? 0)}
                cy={y(strap.gusts[k] ?? 0)}
                r="4"
                fill="var(--ridge-4)"
                stroke="var(--paper)"
              />
            ))}
            <path d={strapPath(strap, x, y)} fill="none" stroke="var(--ridge-5)" strokeWidth="2" />
            {strap.lowest !== null && (
              <circle
                cx={x(strap.lowest)}
                cy={y(strap.a + strap.b * strap.lowest + strap.c * strap.lowest ** 2)}
                r="6"
                fill="var(--lamp)"
                stroke="var(--ink)"
              />
            )}
            {TENSIONS.map((words, k) => (
              <text
                key={k}
                className="text-small"
                x={x(k + 1)}
                y={HEIGHT - 8}
                textAnchor={k === 4 ? "end" : "middle"}
                fill="var(--stone)"
              >
                {words || k + 1}
              </text>
            ))}
          </svg>
        )}
      </div>
    </section>
  );
}
