import { Slider } from "radix-ui";
import { useId, useState } from "react";
import { fromShown, limitsInShown, shownIn, toShown, type Quantity } from "../units";
import { useUnits } from "./useUnits";

/** Ends of a slider in the kept unit; even: evenly spaced in doublings. */
export type Range = { min: number; max: number; even?: boolean };

type Shared = {
  label: string;
  quantity: Quantity;
  problem?: string | undefined;
  range?: Range;
  disabled?: boolean;
};
type Props = Shared &
  (
    | { value: number; optional?: false; onChange: (value: number) => void }
    | { value: number | null; optional: true; onChange: (value: number | null) => void }
  );

const STEPS = 200;

/**
 * A quantity with its unit, taken over while it is typed so that drawings follow at once. What is
 * no number stays in the field with a message, and is not taken over.
 */
export function QuantityField(props: Props) {
  const { label, quantity, value, problem, range, disabled = false } = props;
  const { system } = useUnits();
  const id = useId();
  const [typed, setTyped] = useState<string | null>(null);
  const { unit } = shownIn(quantity, system);
  const wrong = typed !== null && refusal(typed, quantity, system, props.optional === true);
  const message = wrong || (problem && limitsInShown(problem, quantity, system));
  const take = (text: string) => {
    setTyped(text);
    if (text.trim() === "" && props.optional) props.onChange(null);
    const number = fromShown(quantity, text, system);
    if (number !== null) props.onChange(number);
  };
  return (
    <div className="min-w-0">
      <label htmlFor={id} className="block text-small text-stone">
        {label}
      </label>
      <div
        className={`rounded mt-0.5 flex h-[30px] items-center gap-1 border px-2 text-note focus-within:border-ridge-4 ${message ? "border-ember" : "border-control"} ${disabled ? "border-dashed" : "bg-paper"}`}
      >
        <input
          id={id}
          inputMode="decimal"
          disabled={disabled}
          aria-invalid={Boolean(message)}
          data-unread={Boolean(wrong)}
          aria-describedby={message ? `${id}-message` : undefined}
          value={typed ?? (value === null ? "" : toShown(quantity, value, system))}
          placeholder={props.optional ? "not known" : undefined}
          onChange={(event) => take(event.target.value)}
          onBlur={() => !wrong && setTyped(null)}
          onKeyDown={(event) => event.key === "Escape" && setTyped(null)}
          className="w-full min-w-0 bg-transparent font-medium outline-none disabled:text-stone placeholder:font-normal placeholder:text-stone"
        />
        {unit && <span className="shrink-0 text-stone">{unit}</span>}
      </div>
      {range && value !== null && (
        <Glide
          label={label}
          value={value}
          range={range}
          disabled={disabled}
          onChange={(next) => (setTyped(null), props.onChange(next))}
        />
      )}
      {message && (
        <p
          id={`${id}-message`}
          role="alert"
          className="mt-0.5 text-small leading-tight text-ember-deep"
        >
          {sentence(message)}
        </p>
      )}
    </div>
  );
}

type GlideProps = {
  label: string;
  value: number;
  range: Range;
  disabled: boolean;
  onChange: (value: number) => void;
};

function Glide({ label, value, range, disabled, onChange }: GlideProps) {
  const { min, max, even } = range;
  const place = even
    ? Math.log(Math.max(value, min) / min) / Math.log(max / min)
    : (value - min) / (max - min);
  const back = (step: number) => {
    const share = step / STEPS;
    const exact = even ? min * (max / min) ** share : min + (max - min) * share;
    return Number(exact.toPrecision(3));
  };
  return (
    <Slider.Root
      className="relative mt-1 flex h-4 touch-none items-center select-none"
      min={0}
      max={STEPS}
      step={1}
      disabled={disabled}
      value={[Math.round(Math.max(0, Math.min(1, place)) * STEPS)]}
      onValueChange={([step]) => step !== undefined && onChange(back(step))}
    >
      <Slider.Track className="relative h-[3px] grow bg-line">
        <Slider.Range className="absolute h-full bg-ridge-3" />
      </Slider.Track>
      <Slider.Thumb
        aria-label={`${label}, slider`}
        className="block size-3.5 rounded-full border-2 border-paper bg-ridge-4"
      />
    </Slider.Root>
  );
}

function refusal(
  typed: string,
  quantity: Quantity,
  system: "metric" | "imperial",
  optional: boolean,
) {
  if (optional && typed.trim() === "") return "";
  return fromShown(quantity, typed, system) === null ? "Type a number." : "";
}

/** Words of a rule as a sentence. */
export function sentence(words: string): string {
  const first = words.charAt(0).toUpperCase() + words.slice(1);
  return first.endsWith(".") ? first : `${first}.`;
}
