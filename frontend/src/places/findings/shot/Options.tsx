import { useNavigate } from "react-router";
import { actOnSetup } from "../../../api/kit";
import { useChanged } from "../../../api/keys";
import { usePractise } from "../../../api/progress";
import { useTakeSetup, type ShotAnswer, type ShotOption } from "../../../api/shot";
import * as format from "../../../formats";
import { Button } from "../../../ui/Button";
import { useNotices } from "../../../ui/notices";
import { chance } from "../trials/words";
import { doingWords, groundWords } from "./words";

/** waits: the answer to what is asked now is still on its way. */
type Props = { answer: ShotAnswer; chosen: number; waits: boolean };

/** The ways to get it: what to do, how often it passes, and one step to practise or to set it up. */
export function Options({ answer, chosen, waits }: Props) {
  const acts = useActs(answer);
  return (
    <ol aria-label="Ways to get it" aria-busy={waits} className={waits ? "opacity-60" : ""}>
      {answer.options.map((one, index) => (
        <li
          key={one.key}
          aria-current={index === chosen}
          className="relative grid grid-cols-1 items-center gap-x-4 gap-y-1 border-t border-line px-4 py-2 aria-[current=true]:bg-paper sm:px-8 lg:grid-cols-[minmax(0,1fr)_210px_auto]"
        >
          {index === chosen && <i className="absolute inset-y-0 left-0 w-1 bg-lamp" />}
          <div className="min-w-0">
            <p className="leading-tight">
              <b className="font-semibold">{one.name}</b>{" "}
              <span className="text-small text-stone">{one.drill}</span>
            </p>
            <p>{doingWords(one)}</p>
            <p className="text-small text-stone">{groundWords(one, answer.delivery_width_px)}</p>
          </div>
          <Chance one={one} target={answer.target} />
          <span className="flex gap-2">
            <Button disabled={acts.busy || waits} onClick={() => acts.practise(one)}>
              Practise this
            </Button>
            <Button
              disabled={acts.busy || waits || one.lens === null}
              onClick={() => acts.takeSetup(one)}
            >
              Take this set-up
            </Button>
          </span>
        </li>
      ))}
    </ol>
  );
}

/** Both acts on a way. */
export function useActs(answer: ShotAnswer | undefined) {
  const practise = usePractise();
  const setup = useTakeSetup();
  const navigate = useNavigate();
  const changed = useChanged();
  const { notify, fail } = useNotices();
  return {
    busy: practise.isPending || setup.isPending,
    practise: (one: ShotOption) =>
      practise.mutate(
        { key: one.drill_key, variation: one.variation },
        { onError: fail, onSuccess: (kept) => void navigate(`/practice/${kept.session_id}`) },
      ),
    takeSetup: (one: ShotOption) => {
      if (!answer) return;
      setup.mutate(
        { setup_id: answer.setup.id, focal_eq_mm: one.focal_eq_mm, fps: one.fps },
        {
          onError: fail,
          onSuccess: ({ setup_id, before_id }) =>
            notify({
              text: `The set-up in use is now at ${format.millimetres(one.focal_eq_mm)}, ${one.fps}/s.`,
              hint: "It stands in Kit.",
              undo: () =>
                void actOnSetup(setup_id, "archive")
                  .then(() => (before_id === null ? null : actOnSetup(before_id, "use")))
                  .then(() => changed("kit"))
                  .catch(fail),
            }),
        },
      );
    },
  };
}

const [WIDTH, HEIGHT] = [210, 26];

/** How often it passes, as a slope filled so far; hatched where that is under four in five. */
function Chance({ one, target }: { one: ShotOption; target: number }) {
  const shape = `M0 ${HEIGHT}L${WIDTH} ${HEIGHT}L${WIDTH} 2Z`;
  const words = `Passes ${chance(one.chance)}, reads ${format.gust(one.gust)} of ${format.gust(target)}`;
  return (
    <div>
      <svg width={WIDTH} height={HEIGHT} role="img" aria-label={words}>
        <path d={shape} fill="var(--ridge-1)" />
        <clipPath id={`c-${one.key}`}>
          <rect width={WIDTH * one.chance} height={HEIGHT} />
        </clipPath>
        <g clipPath={`url(#c-${one.key})`}>
          <path d={shape} fill={one.works ? "var(--lichen-deep)" : "var(--ridge-3)"} />
          {!one.works && <path d={shape} fill="url(#hatch)" />}
        </g>
        <line x1={0.8 * WIDTH} x2={0.8 * WIDTH} y1={0} y2={HEIGHT} stroke="var(--ink)" />
      </svg>
      <p className="text-small text-stone">{words}</p>
    </div>
  );
}
