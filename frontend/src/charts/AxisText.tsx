type AxisTextProps = {
  x: number;
  y: number;
  anchor?: "start" | "middle" | "end";
  words: string;
  strong?: boolean;
};

/** A word or figure of a drawing; anchored at its start where nothing is said. */
export function AxisText({ x, y, anchor = "start", words, strong = false }: AxisTextProps) {
  return (
    <text
      className="text-fine"
      x={x}
      y={y}
      textAnchor={anchor}
      fontWeight={strong ? 650 : 400}
      fill={strong ? "var(--ink)" : "var(--stone)"}
    >
      {words}
    </text>
  );
}
