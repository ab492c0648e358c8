import type { Bench } from "../../../api/kit";
import { useUnits } from "../../../ui/useUnits";
import { useWidth } from "../../../ui/useWidth";
import { ROUTE_WORDS } from "../words";
import type { StrapPlan } from "./types";

const BODY_HEIGHT = 300;
const STRIP_TOP = 322;
const HEIGHT = 450;
const BEST_N = [8, 22] as const;
const MOST_N = 60;

type Props = { strap: StrapPlan; ask: Bench["strap"]; length: number };

/** The strap on the body from the side, the strap laid out with its mark, and the pull. */
export function StrapDrawing({ strap, ask, length }: Props) {
  const [box, width] = useWidth<HTMLDivElement>();
  return (
    <div ref={box}>
      {width > 0 && (
        <svg
          width={width}
          height={HEIGHT}
          role="img"
          className="bg-paper"
          aria-label={`${ROUTE_WORDS[strap.route]}: taut at ${Math.round(strap.taut_mm / 10)} centimetres`}
        >
          <Figure strap={strap} ask={ask} width={width} />
          <Strip strap={strap} length={length} width={width} />
          <Pull strap={strap} width={width} />
        </svg>
      )}
    </div>
  );
}

function Figure({ strap, ask, width }: { strap: StrapPlan; ask: Bench["strap"]; width: number }) {
  const { inUnits } = useUnits();
  const scale = 0.27;
  const depth = 0.25 * ask.chest_mm * scale;
  const drop = 0.2 * ask.chest_mm * scale;
  const nape = { x: width / 2 - 60, y: 88 };
  const reach = (strap.route === "chest" ? 40 : ask.forearm_mm) * scale;
  const camera = { x: nape.x + depth / 2 + reach, y: nape.y + drop };
  const strapPath = {
    neck: `M${nape.x - 8} ${nape.y}L${camera.x} ${camera.y}`,
    chest: `M${nape.x - 8} ${nape.y}L${camera.x} ${camera.y}`,
    under_arm: `M${camera.x} ${camera.y}L${nape.x + 4} ${nape.y + 6}Q${nape.x - depth} ${nape.y + drop} ${nape.x - 4} ${nape.y + 1.7 * drop}L${camera.x} ${camera.y}`,
  }[strap.route];
  return (
    <g>
      <text className="text-small" x="10" y="18" fill="var(--stone)">
        {ROUTE_WORDS[strap.route]}
      </text>
      <ellipse cx={nape.x + 6} cy={nape.y - 38} rx="23" ry="29" fill="var(--ridge-2)" />
      <path
        d={`M${nape.x - depth / 2} ${nape.y + 10}Q${nape.x} ${nape.y - 12} ${nape.x + depth / 2} ${nape.y + 16}L${nape.x + depth / 2 + 4} ${BODY_HEIGHT}H${nape.x - depth / 2 - 2}Z`}
        fill="var(--ridge-1)"
        stroke="var(--ridge-2)"
      />
      <path
        d={`M${nape.x} ${nape.y + 22}L${nape.x + 8} ${nape.y + 22 + drop + 44}L${camera.x - 6} ${camera.y + 10}`}
        fill="none"
        stroke="var(--ridge-3)"
        strokeWidth="15"
        strokeLinecap="round"
        strokeLinejoin="round"
      />
      <path
        d={strapPath}
        fill="none"
        stroke="var(--ink)"
        strokeWidth="3"
        strokeDasharray={strap.verdict === "slack" ? "7 4" : undefined}
      />
      <g transform={`translate(${camera.x} ${camera.y})`}>
        <rect x="-8" y="-15" width="24" height="30" fill="var(--ridge-4)" stroke="var(--ridge-5)" />
        <rect x="16" y="-9" width="22" height="18" fill="var(--ridge-5)" />
      </g>
      {strap.route !== "chest" && (
        <g stroke="var(--stone)" fill="var(--stone)">
          <line x1={nape.x + depth / 2} x2={camera.x} y1={camera.y + 96} y2={camera.y + 96} />
          <text
            className="text-small"
            x={(nape.x + depth / 2 + camera.x) / 2}
            y={camera.y + 112}
            textAnchor="middle"
            stroke="none"
          >
            a forearm, {inUnits("body_mm", ask.forearm_mm)}
          </text>
        </g>
      )}
    </g>
  );
}

function Strip({ strap, length, width }: { strap: StrapPlan; length: number; width: number }) {
  const { inUnits } = useUnits();
  const [left, right] = [14, width - 14];
  const whole = Math.max(length, strap.taut_mm);
  const x = (mm: number) => left + ((right - left) * mm) / whole;
  return (
    <g transform={`translate(0 ${STRIP_TOP})`}>
      <rect x={left} width={x(length) - left} height="14" fill="var(--ridge-3)" />
      {strap.take_up_mm > 0 && (
        <rect
          x={x(strap.taut_mm)}
          width={x(length) - x(strap.taut_mm)}
          height="14"
          fill="var(--ridge-1)"
          stroke="var(--ridge-3)"
        />
      )}
      <line
        x1={x(strap.taut_mm)}
        x2={x(strap.taut_mm)}
        y1="-8"
        y2="24"
        stroke="var(--lamp)"
        strokeWidth="3"
      />
      <text
        className="text-small"
        x={Math.min(x(strap.taut_mm), right - 4)}
        y="40"
        textAnchor="end"
        fontWeight="600"
        fill="var(--ink)"
      >
        {strap.mark_mm === null ? "wants" : "mark at"} {inUnits("body_mm", strap.taut_mm)}
      </text>
    </g>
  );
}

function Pull({ strap, width }: { strap: StrapPlan; width: number }) {
  const { inUnits } = useUnits();
  const [left, right] = [14, width - 14];
  const x = (n: number) => left + ((right - left) * Math.min(n, MOST_N)) / MOST_N;
  return (
    <g transform={`translate(0 ${STRIP_TOP + 76})`}>
      <line x1={left} x2={right} y1="0" y2="0" stroke="var(--ridge-2)" strokeWidth="3" />
      <rect
        x={x(BEST_N[0])}
        width={x(BEST_N[1]) - x(BEST_N[0])}
        y="-7"
        height="14"
        fill="var(--lichen)"
        stroke="var(--lichen-deep)"
      />
      <text
        className="text-small"
        x={(x(BEST_N[0]) + x(BEST_N[1])) / 2}
        y="24"
        textAnchor="middle"
        fill="var(--lichen-deep)"
      >
        helps
      </text>
      <text className="text-small" x={left} y="24" fill="var(--stone)">
        slack
      </text>
      <text className="text-small" x={right} y="24" textAnchor="end" fill="var(--stone)">
        too hard
      </text>
      <circle cx={x(strap.pull_n)} r="7" fill="var(--lamp)" stroke="var(--ink)" />
      <text
        className="text-small"
        x={Math.max(left + 20, Math.min(x(strap.pull_n), right - 20))}
        y="-13"
        textAnchor="middle"
        fontWeight="600"
        fill="var(--ink)"
      >
        {inUnits("pull_n", strap.pull_n)}
      </text>
    </g>
  );
}
