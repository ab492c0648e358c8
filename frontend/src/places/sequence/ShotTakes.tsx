import { Link } from "react-router";
import {
  useFileTakes,
  useMeetings,
  type FiledTake,
  type MeetingLine,
  type MetLine,
  type OutingDetail,
} from "../../api/outings";
import { SmallRidge } from "../../charts/SmallRidge";
import * as format from "../../formats";
import { Key } from "../../keys/Key";
import { useKeys } from "../../keys/useKeys";
import { Button } from "../../ui/Button";
import { useTelling } from "../../ui/useTelling";

const SURE = 0.8;

/** Takes that meet the outing's shots with their verdicts, and those that could. */
export function ShotTakes({ detail }: { detail: OutingDetail }) {
  const found = useMeetings(detail.id).data;
  const file = useFileTakes(detail.id);
  const tell = useTelling();
  const proposed = found?.proposed ?? [];
  const sure = proposed.filter((one) => one.certainty >= SURE);
  const met = found?.met ?? [];
  const several = met
    .filter((one) => met.some((other) => other !== one && other.shot_id === one.shot_id))
    .map((one) => one.take.id);
  const subject = (id: number) => {
    const place = detail.shots.findIndex((one) => one.id === id);
    return `${place + 1} ${detail.shots[place]?.shot.subject ?? ""}`;
  };
  const accept = (some: readonly MeetingLine[]) => {
    const filed: FiledTake[] = some.map(({ take_id, shot_id, how }) => ({ take_id, shot_id, how }));
    tell(file, filed, {
      text: `Filed: ${format.takes(some.length)}.`,
      undo: some.map(({ take_id }) => ({ take_id, shot_id: null, how: "hand" as const })),
    });
  };
  const let_go = (one: MetLine) => {
    const { shot_id, take, how } = one;
    const out: FiledTake[] = [{ take_id: take.id, shot_id: null, how: "hand" }];
    tell(file, out, {
      text: `${take.name} meets no shot now.`,
      undo: [{ take_id: take.id, shot_id, how }],
    });
  };
  useKeys(sure.length > 0 ? { "File what is sure": { f: () => accept(sure) } } : {});
  if (!found || (found.met.length === 0 && proposed.length === 0)) return null;
  return (
    <section aria-label="Takes" className="border-t border-line px-4 py-4 sm:px-8">
      <header className="flex flex-wrap items-baseline gap-3">
        <h2 className="label-wide">Takes</h2>
        {several.length > 0 && (
          <Link to={`/takes/compare?takes=${several.join(",")}`} className="text-note underline">
            Settle those of one shot side by side
          </Link>
        )}
        {sure.length > 0 && (
          <span className="ml-auto">
            <Button look="main" onClick={() => accept(sure)}>
              File the {sure.length} that are sure <Key>F</Key>
            </Button>
          </span>
        )}
      </header>
      <ul>
        {found.met
          .toSorted((a, b) => placeOf(detail, a.shot_id) - placeOf(detail, b.shot_id))
          .map((one) => (
            <Met
              key={one.take.id}
              one={one}
              subject={subject(one.shot_id)}
              onGone={() => let_go(one)}
            />
          ))}
        {proposed.map((one) => (
          <li
            key={one.take_id}
            className="flex flex-wrap items-baseline gap-x-3 border-b border-line py-1.5"
          >
            <span>
              <b className="font-semibold">{one.name}</b> could be {subject(one.shot_id)}
            </span>
            <span className="text-note text-stone">
              {one.reason}, {format.certainty(one.certainty)}
            </span>
            {one.otherwise && <Otherwise words={one.otherwise} />}
            <span className="ml-auto">
              <Button onClick={() => accept([one])}>File it</Button>
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}

const placeOf = (detail: OutingDetail, id: number) =>
  detail.shots.findIndex((one) => one.id === id);

function Met({ one, subject, onGone }: { one: MetLine; subject: string; onGone: () => void }) {
  const { take } = one;
  return (
    <li className="flex flex-wrap items-center gap-x-3 gap-y-1 border-b border-line py-1.5">
      <span className="w-[180px] truncate font-semibold">{subject}</span>
      <SmallRidge encoded={take.ridge} target={take.target} width={110} height={26} />
      <Link to={`/takes/${take.id}`} className="underline">
        {take.name}
      </Link>
      <span className="figure">{format.gust(take.gust)}</span>
      <span className="text-note text-stone">
        {take.remedy && format.REMEDY_WORDS[take.remedy]}
      </span>
      <span className="ml-auto">
        <Button look="bare" onClick={onGone}>
          Not this shot
        </Button>
      </span>
      {one.otherwise && <Otherwise words={one.otherwise} />}
    </li>
  );
}

function Otherwise({ words }: { words: string }) {
  return <span className="basis-full border-l-2 border-ember pl-2 text-note">{words}</span>;
}
