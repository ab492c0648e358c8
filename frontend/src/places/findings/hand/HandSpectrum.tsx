import { useId } from "react";
import type { HandAnswer } from "../../../api/hand";
import { TicksAcross, TicksUp } from "../../../charts/Ticks";
import { useWidth } from "../../../ui/useWidth";
import { handLine, handRidge, hertzScale, KINDS, turnScale } from "./layout";

const HEIGHT = 260;
const TICKS_HZ = [0.2, 0.5, 1, 2, 5, 10, 20];
const TICKS_MIN = [0.1, 1, 10, 100];

/** How much the hand turns to and fro at each pace: the chosen way as a ridge, others behind it. */
export function HandSpectrum({ answer }: { answer: HandAnswer }) {
  const [box, width] = useWidth<HTMLDivElement>();
  const id = useId();
  const x = hertzScale(44, width - 8);
  const y = turnScale(answer, HEIGHT - 40, 8);
  const chosen = answer.techniques.find((one) => one.key === answer.chosen);
  const others = answer.techniques.filter((one) => one !== chosen);
  return (
    <section aria-label="How your hand turns" className="min-w-0">
      <h2 className="label-wide">How your hand turns</h2>
      <p className="text-note text-stone">
        Arc minutes within each doubling of pace; other techniques as lines behind.
      </p>
      <div ref={box}>
        {width > 0 && chosen && (
          <svg width={width} height={HEIGHT} aria-hidden="true">
            <clipPath id={id}>
              <path d={handRidge(chosen, answer.hz, x, y)} />
            </clipPath>
            <TicksUp ticks={TICKS_MIN} y={y} from={44} to={width} unit="′" />
            {others.map((one) => (
              <path
                key={one.key}
                d={handLine(one, answer.hz, x, y)}
                fill="none"
                stroke="var(--ridge-2)"
              />
            ))}
            <g clipPath={`url(#${id})`}>
              {KINDS.map((kind) => {
                const from = x(Math.max(kind.from, x.domain()[0] ?? 0.2));
                return (
                  <rect
                    key={kind.name}
                    x={from}
                    width={Math.max(0, x(kind.to) - from)}
                    y={0}
                    height={HEIGHT - 40}
                    fill={kind.colour}
                  />
                );
              })}
            </g>
            <path d={handLine(chosen, answer.hz, x, y)} fill="none" stroke="var(--ink)" />
            <TicksAcross ticks={TICKS_HZ} x={x} y={HEIGHT - 24} />
            {KINDS.map((kind) => {
              const from = Math.max(kind.from, x.domain()[0] ?? 0.2);
              return (
                <text
                  key={kind.name}
                  className="text-fine"
                  x={x(Math.sqrt(from * kind.to))}
                  y={HEIGHT - 8}
                  textAnchor="middle"
                  fill="var(--stone)"
                >
                  {kind.name}
                </text>
              );
            })}
          </svg>
        )}
      </div>
    </section>
  );
}
