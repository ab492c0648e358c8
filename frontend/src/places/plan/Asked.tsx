import type { PracticeAsk } from "../../api/practice";
import { Chips } from "../../ui/Chips";
import { Field } from "../../ui/Field";
import { QuantityField } from "../../ui/QuantityField";
import { Segments } from "../../ui/Segments";
import { TextField } from "../../ui/TextField";
import { LOAD_WORDS, MEASURE_WORDS, NEED_WORDS, optionsOf, SPACE_WORDS } from "./words";

const LONGEST_SHOT = 200;

type AskedProps = { ask: PracticeAsk; put: (part: Partial<PracticeAsk>) => void };

/** What is asked of a session: minutes, place, bag, what to work on, what to spare. */
export function Asked({ ask, put }: AskedProps) {
  return (
    <section
      aria-label="What is asked"
      className="grid gap-x-8 gap-y-3 border-y border-line bg-paper px-4 py-3 sm:px-8 md:grid-cols-2 lg:grid-cols-[180px_1fr_1fr]"
    >
      <div className="space-y-3">
        <QuantityField
          label="Minutes"
          quantity="count"
          value={ask.minutes}
          range={{ min: 5, max: 120 }}
          onChange={(minutes) => put({ minutes: Math.round(minutes) })}
        />
        <Field words="Space">
          <Segments
            label="Space"
            value={ask.space}
            options={[
              { value: "spot", words: "Spot" },
              { value: "steps", words: "Steps" },
              { value: "path", words: "Path" },
            ]}
            onChange={(space) => put({ space })}
          />
        </Field>
        <p className="text-small text-stone">{SPACE_WORDS[ask.space]}</p>
      </div>
      <Field words="In the bag, and at the place">
        <Chips
          label="In the bag, and at the place"
          chosen={ask.needs as (keyof typeof NEED_WORDS)[]}
          options={optionsOf(NEED_WORDS)}
          onChange={(needs) => put({ needs })}
        />
      </Field>
      <div className="space-y-3">
        <div className="grid grid-cols-[minmax(0,1fr)_120px] gap-3">
          <TextField
            label="A shot wanted, in your words"
            value={ask.shot ?? ""}
            onChange={(shot) => put({ shot: shot.slice(0, LONGEST_SHOT) })}
          />
          <QuantityField
            label="Lens, equivalent"
            quantity="optics_mm"
            optional
            value={ask.focal_eq_mm ?? null}
            onChange={(focal_eq_mm) => put({ focal_eq_mm })}
          />
        </div>
        <Field words="Work on">
          <Chips
            label="Work on"
            chosen={ask.goals as (keyof typeof MEASURE_WORDS)[]}
            options={optionsOf(MEASURE_WORDS)}
            onChange={(goals) => put({ goals })}
          />
        </Field>
        <Field words="Spare">
          <Chips
            label="Spare"
            chosen={ask.limits}
            options={optionsOf(LOAD_WORDS)}
            onChange={(limits) => put({ limits })}
          />
        </Field>
      </div>
    </section>
  );
}
