import { useEffect, useRef } from "react";
import { useChanged } from "../../../api/keys";
import { saveItem, type Place } from "../../../api/kit";
import { Button } from "../../../ui/Button";
import { Facts } from "../../../ui/Facts";
import { useNotices } from "../../../ui/notices";
import { QuantityField } from "../../../ui/QuantityField";
import { Toggle } from "../../../ui/Toggle";
import { useUnits } from "../../../ui/useUnits";
import { PanelFrame } from "./PanelFrame";
import type { PanelProps } from "./panel";
import { carriedOf, placedAt, placeOf, type RigAsk } from "./rig";
import { RigDrawing } from "./RigDrawing";
import type { Balance } from "./types";

const FIRST_HANDLE: Place = { x_mm: 0, y_mm: 150, z_mm: 0 };
const WEIGHT_SIZE = { width_mm: 40, height_mm: 40, depth_mm: 20 };

/** How the rig hangs and weighs, and what would level it. */
export function RigPanel({
  answer,
  late,
  setup,
  kit,
  change,
  problem,
  onSupport,
  onNoSupport,
}: PanelProps) {
  const ask = setup.bench.rig;
  const put = (rig: RigAsk) => change({ rig });
  const changed = useChanged();
  const { fail, notify } = useNotices();
  const { rig } = answer;
  const takeOff = useRef(onNoSupport); // the set-up may have changed before it is undone
  useEffect(() => {
    takeOff.current = onNoSupport;
  }, [onNoSupport]);
  const addWeight = (mass_g: number) => {
    const name = `Counterweight, ${Math.round(mass_g)} g`;
    const spec = {
      kind: "weight" as const,
      mass_g: Math.round(mass_g),
      size: WEIGHT_SIZE,
      place: ask.weight_at,
      carried: true,
      length_mm: null,
      route: null,
    };
    saveItem("supports", null, { name, spec })
      .then((made) => {
        changed("kit");
        onSupport(made.id, placedAt(ask, made.id, ask.weight_at));
        notify({ text: `${name} hangs on it.`, undo: () => takeOff.current(made.id) });
      })
      .catch(fail);
  };
  return (
    <PanelFrame
      words="Rig"
      drawing={
        <RigDrawing
          parts={answer.rig_parts}
          balance={rig}
          ask={ask}
          setup={setup}
          kit={kit}
          onChange={put}
        />
      }
    >
      {rig && (
        <Figures
          rig={rig}
          late={late}
          onLevel={(shift) =>
            ask.handle &&
            put({ ...ask, handle: { ...ask.handle, z_mm: Math.round(ask.handle.z_mm + shift) } })
          }
          onWeight={addWeight}
        />
      )}
      <div className="space-y-3">
        <Toggle
          label="It has a handle to hang from"
          on={ask.handle !== null}
          onChange={(on) => put({ ...ask, handle: on ? FIRST_HANDLE : null })}
        />
        {ask.handle && (
          <PlaceFields
            words="Handle"
            place={ask.handle}
            problem={problem}
            onChange={(handle) => put({ ...ask, handle })}
          />
        )}
        <PlaceFields
          words="Counterweight"
          place={ask.weight_at}
          problem={problem}
          onChange={(weight_at) => put({ ...ask, weight_at })}
        />
        {carriedOf(setup, kit).map((item) => (
          <PlaceFields
            key={item.id}
            words={item.name}
            place={placeOf(ask, item.id, item.spec.place)}
            problem={problem}
            onChange={(place) => put(placedAt(ask, item.id, place))}
          />
        ))}
      </div>
    </PanelFrame>
  );
}

type PlaceProps = {
  words: string;
  place: Place;
  problem: (field: string) => string | undefined;
  onChange: (place: Place) => void;
};
const AXES = [
  ["z_mm", "ahead"],
  ["y_mm", "up"],
  ["x_mm", "right"],
] as const;

function PlaceFields({ words, place, problem, onChange }: PlaceProps) {
  return (
    <fieldset className="grid grid-cols-3 gap-x-3">
      <legend className="mb-0.5 text-small font-semibold">{words}</legend>
      {AXES.map(([axis, name]) => (
        <QuantityField
          key={axis}
          label={name}
          quantity="size_mm"
          value={place[axis]}
          problem={problem(axis)}
          onChange={(value) => onChange({ ...place, [axis]: value })}
        />
      ))}
    </fieldset>
  );
}

type FigureProps = {
  rig: Balance;
  late: boolean;
  onLevel: (shift_mm: number) => void;
  onWeight: (mass_g: number) => void;
};

function Figures({ rig, late, onLevel, onWeight }: FigureProps) {
  const { inUnits } = useUnits();
  const { hang } = rig;
  return (
    <>
      <Facts
        facts={[
          { words: "To carry in all", value: inUnits("heavy_g", rig.mass_g) },
          { words: "On the arms, elbows in", value: inUnits("torque_nm", rig.torque_close_nm) },
          { words: "On the arms, stretched out", value: inUnits("torque_nm", rig.torque_arm_nm) },
          {
            words: "Jitter against the bare camera, a model",
            value: `${Math.round(100 * rig.jitter_ratio)} %`,
          },
          ...(hang
            ? [
                {
                  words: hang.forward_deg >= 0 ? "Hangs nose down" : "Hangs nose up",
                  value: inUnits("degrees", Math.abs(hang.forward_deg)),
                  warns: !hang.level,
                },
                {
                  words: hang.sideways_deg >= 0 ? "Right side down" : "Left side down",
                  value: inUnits("degrees", Math.abs(hang.sideways_deg)),
                  warns: Math.abs(hang.sideways_deg) > 1,
                },
                { words: "Swings at", value: inUnits("hertz", hang.swing_hz), warns: hang.swings },
              ]
            : []),
        ]}
      />
      {!hang && rig.hang_reason && (
        <p className="text-note text-stone">How it hangs cannot be said: {rig.hang_reason}.</p>
      )}
      {hang?.swings && (
        <p className="text-note text-ember-deep">
          It swings in step with breath, sway and walking. Damp it with the second hand, or bring
          the mass nearer.
        </p>
      )}
      {hang && hang.level && <p className="font-semibold text-lichen-deep">It hangs level.</p>}
      {hang && !hang.level && (
        <div className="space-y-2">
          <p className="text-note text-stone">
            {hang.counterweight_g === null
              ? `No counterweight there levels it: ${hang.reason ?? ""}.`
              : `${inUnits("mass_g", hang.counterweight_g)} at the counterweight’s place would level it.`}
          </p>
          <div className="flex flex-wrap gap-2">
            <Button disabled={late} onClick={() => onLevel(hang.shift_mm)}>
              Move the handle {inUnits("size_mm", Math.abs(hang.shift_mm))}{" "}
              {hang.shift_mm > 0 ? "ahead" : "back"}
            </Button>
            {hang.counterweight_g !== null && (
              <Button disabled={late} onClick={() => onWeight(hang.counterweight_g ?? 0)}>
                Add the counterweight
              </Button>
            )}
          </div>
        </div>
      )}
    </>
  );
}
