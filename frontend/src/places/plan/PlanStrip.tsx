import type { Drill, PracticePlan } from "../../api/practice";
import { useWidth } from "../../ui/useWidth";
import { stepsOf } from "../practice/door";

const HEIGHT = 92;
const LEGEND_PX = 640;
const LOADED = { none: 8, one: 22, more: 36 };

type Props = { plan: PracticePlan; library: Record<string, Drill> };

/** The session as a strip of time: takes rise by how much the drill loads, rests lie flat. */
export function PlanStrip({ plan, library }: Props) {
  const [box, width] = useWidth<HTMLDivElement>();
  const steps = stepsOf({ session: { plan } as Parameters<typeof stepsOf>[0]["session"] });
  const total = steps.reduce((sum, step) => sum + step.seconds, 0);
  const scale = Math.max(width - 64, 0) / Math.max(total, 1);
  const base = HEIGHT - 24;
  const starts = startsOf(steps);
  return (
    <div ref={box} className="border-b border-line">
      {width > 0 && (
        <svg width={width} height={HEIGHT} role="img" aria-label="The session over time">
          {steps.map((step, index) => {
            const block = plan.blocks[step.block];
            const drill = block && library[block.drill_key];
            const from = 32 + (starts[index] ?? 0) * scale;
            const control = drill?.variations.find((one) => one.control)?.key;
            const key = block?.order[orderOf(plan, step.position)];
            const tall =
              step.kind === "roll" ? 14 + loadOf(drill) : step.kind === "warm-up" ? 10 : 4;
            const fill = step.kind === "roll" ? (key === control ? "var(--ridge-2)" : "var(--ridge-4)") : "var(--ridge-1)"; // prettier-ignore
            return (
              <g key={index}>
                <rect
                  x={from}
                  y={base - tall}
                  width={Math.max(step.seconds * scale - 0.5, 0.5)}
                  height={tall}
                  fill={fill}
                />
                {step.kind === "set-up" && (
                  <text className="text-fine" x={from + 1} y={base + 16} fill="var(--stone)">
                    {step.block + 1}
                  </text>
                )}
              </g>
            );
          })}
          {width > LEGEND_PX && (
            <text className="text-fine" x={width - 32} y="14" textAnchor="end" fill="var(--stone)">
              pale: the plain control · dark: the variation · height: how much it loads you
            </text>
          )}
          <line x1="32" x2={width - 32} y1={base} y2={base} stroke="var(--line)" />
        </svg>
      )}
    </div>
  );
}

/** Seconds from the beginning at which each step starts. */
function startsOf(steps: readonly { seconds: number }[]): number[] {
  const starts: number[] = [];
  steps.reduce((sum, step) => (starts.push(sum), sum + step.seconds), 0);
  return starts;
}

function loadOf(drill: Drill | undefined): number {
  const count = drill?.loads.length ?? 0;
  return count === 0 ? LOADED.none : count === 1 ? LOADED.one : LOADED.more;
}

/** Place of a take within its block. */
function orderOf(plan: PracticePlan, position: number): number {
  let left = position;
  for (const block of plan.blocks) {
    if (left < block.order.length) return left;
    left -= block.order.length;
  }
  return 0;
}
