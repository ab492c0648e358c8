import type { Support } from "../../api/kit";
import { Field } from "../../ui/Field";
import { QuantityField } from "../../ui/QuantityField";
import { Select } from "../../ui/Select";
import { Toggle } from "../../ui/Toggle";
import type { Editor } from "./ItemPage";
import { ROUTE_WORDS, SUPPORT_WORDS } from "./words";

const KINDS = Object.entries(SUPPORT_WORDS).map(([value, words]) => ({
  value: value as Support["kind"],
  words,
}));
const ROUTES = Object.entries(ROUTE_WORDS).map(([value, words]) => ({
  value: value as keyof typeof ROUTE_WORDS,
  words,
}));
const SIDES = [
  ["width_mm", "Width"],
  ["height_mm", "Height"],
  ["depth_mm", "Depth"],
] as const;
const PLACES = [
  ["x_mm", "To the right"],
  ["y_mm", "Above the base"],
  ["z_mm", "Ahead of the middle"],
] as const;
const USUAL_STRAP_MM = 1400;

/** Kind, mass, size and place of a support. */
export function SupportFields({ spec, change, problem }: Editor<Support>) {
  return (
    <div className="grid grid-cols-2 gap-x-5 gap-y-4 sm:grid-cols-3">
      <Field words="Kind">
        <Select
          label="Kind"
          value={spec.kind}
          options={KINDS}
          wide
          onChange={(kind) =>
            change(
              kind === "strap"
                ? { kind, length_mm: spec.length_mm ?? USUAL_STRAP_MM, route: spec.route ?? "neck" }
                : { kind, length_mm: null, route: null },
            )
          }
        />
      </Field>
      <QuantityField
        label="Mass"
        quantity="mass_g"
        value={spec.mass_g}
        problem={problem("mass_g")}
        onChange={(mass_g) => change({ mass_g })}
      />
      <div className="self-center">
        <Toggle
          label="Hangs on the camera"
          on={spec.carried}
          onChange={(carried) => change({ carried })}
        />
      </div>
      {spec.kind === "strap" && spec.length_mm !== null && (
        <>
          <QuantityField
            label="Length, fully let out"
            quantity="body_mm"
            value={spec.length_mm}
            problem={problem("length_mm")}
            onChange={(length_mm) => change({ length_mm })}
          />
          <Field words="Route">
            <Select
              label="Route"
              value={spec.route ?? "neck"}
              options={ROUTES}
              wide
              onChange={(route) => change({ route })}
            />
          </Field>
          <span className="hidden sm:block" />
        </>
      )}
      {SIDES.map(([side, words]) => (
        <QuantityField
          key={side}
          label={words}
          quantity="size_mm"
          value={spec.size[side]}
          problem={problem(`size.${side}`)}
          onChange={(length) => change({ size: { ...spec.size, [side]: length } })}
        />
      ))}
      {PLACES.map(([axis, words]) => (
        <QuantityField
          key={axis}
          label={`${words}, its middle`}
          quantity="size_mm"
          value={spec.place[axis]}
          problem={problem(`place.${axis}`)}
          onChange={(at) => change({ place: { ...spec.place, [axis]: at } })}
        />
      ))}
    </div>
  );
}
