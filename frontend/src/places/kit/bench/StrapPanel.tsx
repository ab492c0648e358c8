import { PULL_WORDS, PULLS } from "../../../live/pulls";
import type { Bench } from "../../../api/kit";
import { Facts } from "../../../ui/Facts";
import { Field } from "../../../ui/Field";
import { QuantityField } from "../../../ui/QuantityField";
import { Segments } from "../../../ui/Segments";
import { Select } from "../../../ui/Select";
import { useUnits } from "../../../ui/useUnits";
import { ROUTE_WORDS } from "../words";
import { NoDrawing, PanelFrame } from "./PanelFrame";
import type { PanelProps } from "./panel";
import { StrapDrawing } from "./StrapDrawing";
import type { StrapPlan } from "./types";

type Ask = Bench["strap"];
const FELT = PULLS.map((pull) => {
  const words = PULL_WORDS[pull];
  return { value: `${pull}` as const, words: words.charAt(0).toUpperCase() + words.slice(1) };
});
const ROUTES = Object.entries(ROUTE_WORDS).map(([value, words]) => ({
  value: value as StrapPlan["route"],
  words,
}));
const FIRST_SCALE_KG = 1.5;

/** Length and mark of the strap for one body, and how hard to pull. */
export function StrapPanel({ answer, setup, kit, change, problem }: PanelProps) {
  const { inUnits } = useUnits();
  const { strap } = answer;
  const ask = setup.bench.strap;
  const put = (part: Partial<Ask>) => change({ strap: { ...ask, ...part } });
  const own = setup.support_ids
    .map((id) => kit.supports.find((one) => one.id === id)?.spec)
    .find((spec) => spec?.kind === "strap");
  const length = ask.length_mm ?? own?.length_mm ?? null;
  return (
    <PanelFrame
      words="Strap"
      drawing={
        strap ? (
          <StrapDrawing strap={strap} ask={ask} length={strap.taut_mm + strap.take_up_mm} />
        ) : (
          <NoDrawing words="The strap cannot be drawn." />
        )
      }
    >
      <div className="grid grid-cols-2 gap-x-4 gap-y-3">
        <QuantityField
          label="Forearm, elbow to knuckles"
          quantity="body_mm"
          value={ask.forearm_mm}
          range={{ min: 250, max: 450 }}
          problem={problem("forearm_mm")}
          onChange={(forearm_mm) => put({ forearm_mm })}
        />
        <QuantityField
          label="Chest, all round"
          quantity="body_mm"
          value={ask.chest_mm}
          range={{ min: 650, max: 1400 }}
          problem={problem("chest_mm")}
          onChange={(chest_mm) => put({ chest_mm })}
        />
        <QuantityField
          label="Strap, fully let out"
          quantity="body_mm"
          value={length}
          optional
          problem={problem("length_mm")}
          onChange={(length_mm) => put({ length_mm })}
        />
        <Field words="Route">
          <Select
            label="Route of the strap"
            value={strap?.route ?? ask.route ?? "neck"}
            options={ROUTES}
            wide
            onChange={(route) => put({ route, measured_mm: null })}
          />
        </Field>
        <QuantityField
          label="Taut length, measured on you"
          quantity="body_mm"
          value={ask.measured_mm}
          optional
          problem={problem("measured_mm")}
          onChange={(measured_mm) => put({ measured_mm })}
        />
        <QuantityField
          label="Pull on a luggage scale"
          quantity="scale_kg"
          value={ask.scale_kg}
          optional
          problem={problem("scale_kg")}
          onChange={(scale_kg) =>
            put({ scale_kg, felt: scale_kg === null ? (ask.felt ?? 3) : ask.felt })
          }
        />
        <div className="col-span-2">
          <Field
            words={
              ask.scale_kg === null ? "Pull as it feels" : "Pull as it feels (the scale counts)"
            }
          >
            <Segments
              label="Pull as it feels"
              value={String(ask.felt ?? 3) as (typeof FELT)[number]["value"]}
              options={FELT}
              onChange={(next) => put({ felt: Number(next), scale_kg: null })}
            />
          </Field>
        </div>
      </div>
      {strap && (
        <>
          <Facts
            facts={[
              { words: "Taut at", value: inUnits("body_mm", strap.taut_mm) },
              {
                words: strap.take_up_mm >= 0 ? "Take up" : "Too short by",
                value: inUnits("body_mm", Math.abs(strap.take_up_mm)),
                warns: strap.take_up_mm < 0,
              },
              { words: "Mark the strap at", value: inUnits("body_mm", strap.mark_mm) },
              {
                words: "Pull",
                value: `${inUnits("pull_n", strap.pull_n)}, ${HELPS_WORDS[strap.verdict] ?? ""}`,
                warns: strap.verdict === "too hard",
              },
              {
                words: "A scale should show",
                value: `${inUnits("scale_kg", strap.scale_low_kg)} to ${inUnits("scale_kg", strap.scale_high_kg)}`,
              },
              { words: "Pull in one session at most", value: `${Math.round(strap.limit_min)} min` },
            ]}
          />
          {strap.reason && <p className="text-note text-ember-deep">{strap.reason}.</p>}
          <Caution
            strap={strap}
            onScale={() => put({ scale_kg: ask.scale_kg ?? FIRST_SCALE_KG })}
          />
        </>
      )}
    </PanelFrame>
  );
}

const HELPS_WORDS: Record<string, string> = {
  slack: "too little to help",
  helps: "it helps",
  "too hard": "too hard",
};

function Caution({ strap, onScale }: { strap: StrapPlan; onScale: () => void }) {
  return (
    <div className="space-y-1.5 border-l-2 border-lamp pl-3 text-note">
      <p>
        {strap.on_neck
          ? "The pull rests on your neck. Let go between takes; stop with any pain, numbness or dizziness, and change to the strap under one arm."
          : "The pull spares the neck, and rests on shoulder and back. Let go between takes; stop with any pain or numbness."}
      </p>
      <p className="text-stone">
        Lengths follow usual proportions of the body: wear it once, measure, and type the length in.{" "}
        <button type="button" onClick={onScale} className="underline hover:text-ink">
          I have a luggage scale
        </button>
      </p>
    </div>
  );
}
