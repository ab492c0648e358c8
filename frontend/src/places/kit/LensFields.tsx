import type { Lens } from "../../api/kit";
import { QuantityField } from "../../ui/QuantityField";
import { TextField } from "../../ui/TextField";
import { Toggle } from "../../ui/Toggle";
import type { Editor } from "./ItemPage";

/** Focal range, stabiliser, mass and balance of a lens, drawn from the side. */
export function LensFields({ spec, change, problem }: Editor<Lens>) {
  return (
    <>
      <LensDrawing lens={spec} />
      <div className="grid grid-cols-2 gap-x-5 gap-y-4 sm:grid-cols-4">
        <QuantityField
          label="Shortest focal length, true"
          quantity="optics_mm"
          value={spec.focal_min_mm}
          problem={problem("focal_min_mm")}
          onChange={(focal_min_mm) => change({ focal_min_mm })}
        />
        <QuantityField
          label="Longest focal length, true"
          quantity="optics_mm"
          value={spec.focal_max_mm}
          problem={problem("focal_max_mm")}
          onChange={(focal_max_mm) => change({ focal_max_mm })}
        />
        <TextField
          label="Mount, as its cameras say"
          value={spec.mount}
          problem={problem("mount")}
          onChange={(mount) => change({ mount })}
        />
        <div className="self-center">
          <Toggle
            label="Has a stabiliser"
            on={spec.stabiliser}
            onChange={(stabiliser) => change({ stabiliser })}
          />
        </div>
        <QuantityField
          label="Mass, 0 where built in"
          quantity="mass_g"
          value={spec.mass_g}
          problem={problem("mass_g")}
          onChange={(mass_g) => change({ mass_g })}
        />
        <QuantityField
          label="Length"
          quantity="size_mm"
          value={spec.length_mm}
          problem={problem("length_mm")}
          onChange={(length_mm) => change({ length_mm })}
        />
        <QuantityField
          label="Diameter"
          quantity="size_mm"
          value={spec.diameter_mm}
          problem={problem("diameter_mm")}
          onChange={(diameter_mm) => change({ diameter_mm })}
        />
        <QuantityField
          label="Balances ahead of its mount"
          quantity="size_mm"
          value={spec.balance_mm}
          problem={problem("balance_mm")}
          onChange={(balance_mm) => change({ balance_mm })}
        />
      </div>
    </>
  );
}

function LensDrawing({ lens }: { lens: Lens }) {
  const scale = Math.min(
    1.4,
    420 / Math.max(lens.length_mm, 1),
    130 / Math.max(lens.diameter_mm, 1),
  );
  const long = Math.max(2, lens.length_mm * scale);
  const half = Math.max(2, (lens.diameter_mm * scale) / 2);
  const at = Math.min(Math.max(lens.balance_mm * scale, 0), long);
  return (
    <svg
      viewBox="0 -80 480 160"
      className="h-40 max-w-full"
      role="img"
      aria-label="The lens from the side, with the point where it balances"
    >
      <rect x="0" y="-70" width="16" height="140" fill="var(--ridge-1)" />
      <rect
        x="16"
        y={-half}
        width={long}
        height={2 * half}
        fill="var(--ridge-2)"
        stroke="var(--ink)"
      />
      <rect
        x={16 + long * 0.3}
        y={-half}
        width={long * 0.3}
        height={2 * half}
        fill="var(--ridge-3)"
      />
      <line
        x1={16 + at}
        x2={16 + at}
        y1={-half - 10}
        y2={half + 10}
        stroke="var(--lamp)"
        strokeWidth="2"
      />
      <circle cx={16 + at} r="5" fill="var(--lamp)" stroke="var(--ink)" />
      <text className="text-small" x={16 + at + 9} y={-half - 4} fill="var(--stone)">
        balances here
      </text>
    </svg>
  );
}
