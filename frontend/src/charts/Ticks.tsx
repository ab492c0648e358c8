import { tickWords } from "./tickWords";

type Scale = (value: number) => number;

type AcrossProps = {
  ticks: readonly number[];
  x: Scale;
  /** Baseline of the figures. */
  y: number;
  /** A hairline from the top of the drawing to here. */
  lineTo?: number;
  fine?: boolean;
};

/** Figures along the foot of a drawing. */
export function TicksAcross({ ticks, x, y, lineTo, fine = false }: AcrossProps) {
  const words = tickWords(ticks);
  return ticks.map((tick, k) => (
    <g key={tick}>
      {lineTo !== undefined && (
        <line x1={x(tick)} x2={x(tick)} y1={0} y2={lineTo} stroke="var(--line)" />
      )}
      <text
        className={fine ? "text-fine" : "text-small"}
        x={x(tick)}
        y={y}
        textAnchor="middle"
        fill="var(--stone)"
      >
        {words[k]}
      </text>
    </g>
  ));
}

type UpProps = {
  ticks: readonly number[];
  y: Scale;
  /** From the figures to the right edge. */
  from: number;
  to: number;
  unit?: string;
};

/** Hairlines across a drawing with their figures to the left. */
export function TicksUp({ ticks, y, from, to, unit = "" }: UpProps) {
  const words = tickWords(ticks);
  return ticks.map((tick, k) => (
    <g key={tick}>
      <line x1={from} x2={to} y1={y(tick)} y2={y(tick)} stroke="var(--line)" />
      <text
        className="text-small"
        x={from - 6}
        y={y(tick) + 4}
        textAnchor="end"
        fill="var(--stone)"
      >
        {words[k]}
        {unit}
      </text>
    </g>
  ));
}
