import * as format from "../../formats";

const [SHORTEST_MM, LONGEST_MM] = [10, 320];
const STEPS = 100;

/** Where a focal length stands on the slider, which goes evenly in stops. */
export const lensStep = (mm: number) =>
  Math.round((STEPS * Math.log(mm / SHORTEST_MM)) / Math.log(LONGEST_MM / SHORTEST_MM));

const lensAt = (step: number) =>
  Math.round(SHORTEST_MM * (LONGEST_MM / SHORTEST_MM) ** (step / STEPS));

/** The focal length some steps on, within the slider. */
export const lensBy = (mm: number, steps: number) =>
  lensAt(Math.max(0, Math.min(STEPS, lensStep(mm) + steps)));

type Props = { mm: number; onChange: (mm: number) => void };

/** An equivalent focal length. */
export function LensSlider({ mm, onChange }: Props) {
  return (
    <label className="flex items-center gap-2 text-note font-medium">
      Lens
      <input
        type="range"
        min={0}
        max={STEPS}
        value={lensStep(mm)}
        aria-valuetext={format.millimetres(mm)}
        onChange={(event) => onChange(lensAt(Number(event.target.value)))}
        className="w-44 accent-ink"
      />
      <span className="w-14 font-semibold">{format.millimetres(mm)}</span>
    </label>
  );
}
