import { Slider } from "radix-ui";
import { useState } from "react";
import type { BenchQuery } from "../../../api/kit";
import { Facts, type Fact } from "../../../ui/Facts";
import { Field } from "../../../ui/Field";
import { QuantityField } from "../../../ui/QuantityField";
import { Select } from "../../../ui/Select";
import { Toggle } from "../../../ui/Toggle";
import { useUnits } from "../../../ui/useUnits";
import { useWidth } from "../../../ui/useWidth";
import { cameraOf } from "../words";
import { moveFacts } from "./moveFacts";
import { MoveFrame } from "./MoveFrame";
import { MovePlan } from "./MovePlan";
import { MovePreview } from "./MovePreview";
import { MOVE_OPTIONS, MOVES, type MoveAsk } from "./moves";
import { NoDrawing, PanelFrame } from "./PanelFrame";
import type { PanelProps } from "./panel";

const NARROW_PX = 620;
const GAP_PX = 20;
const PLAN_PX = 320;

/** A move planned: drawn from above and in the frame, with what it takes and what it does. */
export function MovePanel(props: PanelProps & { query: BenchQuery }) {
  const { answer, setup, query } = props;
  const { inUnits } = useUnits();
  const { move } = answer;
  const ask = setup.bench.move;
  return (
    <PanelFrame
      words="Move"
      drawing={
        move ? (
          <Drawing {...props} move={move} ask={ask} query={query} />
        ) : (
          <NoDrawing words="This move cannot be drawn." />
        )
      }
    >
      <Asked {...props} ask={ask} />
      {move && (
        <Figures
          facts={moveFacts(move, ask, inUnits)}
          hurried={move.hurried}
          needed={inUnits("seconds", move.needed_s)}
        />
      )}
    </PanelFrame>
  );
}

type DrawingProps = PanelProps & {
  query: BenchQuery;
  move: NonNullable<PanelProps["answer"]["move"]>;
  ask: MoveAsk;
};

function Drawing({ setup, kit, move, ask, query }: DrawingProps) {
  const [box, width] = useWidth<HTMLDivElement>();
  const last = move.stations.length - 1;
  const [at, setAt] = useState(last);
  const mode = cameraOf(kit, setup.camera_id)?.spec.modes[setup.optics.mode];
  const aspect = mode
    ? Math.min(mode.width_px, mode.height_px) / Math.max(mode.width_px, mode.height_px)
    : 9 / 16;
  const half = width < NARROW_PX ? width : (width - GAP_PX) / 2;
  return (
    <div ref={box} className="space-y-4">
      {width > 0 && (
        <div className="flex flex-wrap gap-5">
          <MovePlan
            move={move}
            ask={ask}
            aspect={aspect}
            at={Math.min(at, last)}
            width={half}
            height={PLAN_PX}
          />
          <div className="space-y-3" style={{ width: half }}>
            <MoveFrame move={move} aspect={aspect} at={Math.min(at, last)} width={half} />
            <div className="flex items-center gap-3 text-small text-stone">
              start
              <Slider.Root
                className="relative flex h-4 grow touch-none items-center select-none"
                min={0}
                max={last}
                step={1}
                value={[Math.min(at, last)]}
                onValueChange={([next]) => next !== undefined && setAt(next)}
              >
                <Slider.Track className="relative h-[3px] grow bg-line">
                  <Slider.Range className="absolute h-full bg-ridge-3" />
                </Slider.Track>
                <Slider.Thumb
                  aria-label="Place in the move"
                  className="block size-3.5 rounded-full border border-ink bg-lamp"
                />
              </Slider.Root>
              end
            </div>
            <p className="text-small text-stone">
              Dashed: at the start. Post in front, sack in the middle, mill behind.
            </p>
          </div>
        </div>
      )}
      <MovePreview query={query} />
    </div>
  );
}

type AskedProps = PanelProps & { ask: MoveAsk };

function Asked({ ask, change, problem }: AskedProps) {
  const words = MOVES[ask.kind];
  const put = (part: Partial<MoveAsk>) => change({ move: { ...ask, ...part } });
  const distance = (name: "subject_m" | "foreground_m" | "background_m", label: string, max: number) => (
    <QuantityField
      label={label}
      quantity="distance_m"
      value={ask[name]}
      range={{ min: 0.2, max, even: true }}
      problem={problem(name)}
      onChange={(value) => put({ [name]: value })}
    />
  ); // prettier-ignore
  return (
    <div className="grid grid-cols-2 gap-x-4 gap-y-3">
      <Field words="Move">
        <Select
          label="Move"
          value={ask.kind}
          options={MOVE_OPTIONS}
          wide
          onChange={(kind) => put({ kind, amount: MOVES[kind].usual })}
        />
      </Field>
      <QuantityField
        label={words.amount}
        quantity={words.quantity}
        value={ask.amount}
        range={words.range}
        problem={problem("amount")}
        onChange={(amount) => put({ amount })}
      />
      {distance("subject_m", "To the subject", 50)}
      {distance("foreground_m", "To the foreground", 50)}
      {distance("background_m", "To the background", 500)}
      <QuantityField
        label="It takes"
        quantity="seconds"
        value={ask.seconds}
        range={{ min: 0.5, max: 30, even: true }}
        problem={problem("seconds")}
        onChange={(seconds) => put({ seconds })}
      />
      {words.asks.includes("leg") && (
        <QuantityField
          label="Leg, hip to floor"
          quantity="short_m"
          value={ask.leg_m}
          problem={problem("leg_m")}
          onChange={(leg_m) => put({ leg_m })}
        />
      )}
      {words.asks.includes("cadence") && (
        <QuantityField
          label="Steps a second"
          quantity="hertz"
          value={ask.cadence_hz}
          range={{ min: 0.8, max: 3 }}
          problem={problem("cadence_hz")}
          onChange={(cadence_hz) => put({ cadence_hz })}
        />
      )}
      {words.asks.includes("pole") && (
        <>
          <QuantityField
            label="Stick, foot to camera"
            quantity="distance_m"
            value={ask.pole_m}
            problem={problem("pole_m")}
            onChange={(pole_m) => put({ pole_m })}
          />
          <div className="self-center">
            <Toggle label="Levelled by hand" on={ask.level} onChange={(level) => put({ level })} />
          </div>
        </>
      )}
      <QuantityField
        label="A thing may cross in"
        quantity="seconds"
        value={ask.crossing_s}
        range={{ min: 2, max: 15 }}
        problem={problem("crossing_s")}
        onChange={(crossing_s) => put({ crossing_s })}
      />
    </div>
  );
}

function Figures({ facts, hurried, needed }: { facts: Fact[]; hurried: boolean; needed: string }) {
  return (
    <>
      <Facts facts={facts} />
      <p className={hurried ? "font-semibold text-ember-deep" : "text-stone"}>
        {hurried
          ? `Hurried: it stutters under ${needed}. Take longer, or move less.`
          : `Slow enough: it would stutter under ${needed}.`}
      </p>
    </>
  );
}
