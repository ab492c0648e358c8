import { useId } from "react";
import { sentence } from "./QuantityField";

type Props = {
  label: string;
  value: string;
  onChange: (value: string) => void;
  problem?: string | undefined;
  lines?: number;
  hint?: string;
};

/** Words, with a message beside them where they cannot be taken. */
export function TextField({ label, value, onChange, problem, lines = 1, hint }: Props) {
  const id = useId();
  const looks = `rounded mt-0.5 block w-full border bg-paper px-2 text-note outline-none focus:border-ridge-4 ${problem ? "border-ember" : "border-control"}`;
  const shared = {
    id,
    value,
    "aria-invalid": Boolean(problem),
    "aria-describedby": problem || hint ? `${id}-message` : undefined,
  };
  return (
    <div className="min-w-0">
      <label htmlFor={id} className="block text-small text-stone">
        {label}
      </label>
      {lines > 1 ? (
        <textarea
          {...shared}
          rows={lines}
          onChange={(event) => onChange(event.target.value)}
          className={`${looks} py-1.5`}
        />
      ) : (
        <input
          {...shared}
          onChange={(event) => onChange(event.target.value)}
          className={`${looks} h-[30px] font-medium`}
        />
      )}
      {(problem || hint) && (
        <p
          id={`${id}-message`}
          role={problem ? "alert" : undefined}
          className={`mt-0.5 text-small leading-tight ${problem ? "text-ember-deep" : "text-stone"}`}
        >
          {problem ? sentence(problem) : hint}
        </p>
      )}
    </div>
  );
}
