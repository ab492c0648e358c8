import { Link } from "react-router";
import { useProposals, type Drill, type SessionDetail, type SessionTake } from "../../api/practice";
import { useTakes } from "../../api/takes";
import { SmallBody } from "../../body/SmallBody";
import { SmallRidge } from "../../charts/SmallRidge";
import * as format from "../../formats";
import { Select } from "../../ui/Select";
import { useFile } from "./useFile";
import { WaysPicture } from "./WaysPicture";
import { waysOf } from "./waysLayout";

const NONE = "none";

/** What came of each drill of a session: its ways against one another, and take by take. */
export function Outcome({ detail }: { detail: SessionDetail }) {
  const { session } = detail;
  const told = session.takes.some((take) => take.gust !== null);
  return (
    <section aria-label="Takes of the session">
      {told && (
        <p className="flex flex-wrap items-center gap-x-4 gap-y-1 px-4 pt-3 text-small text-stone sm:px-8">
          <span>
            Each take by its number: steadier to the left, over what the drill asks hatched, crossed
            out where it counts for nothing.
          </span>
          <Legend />
        </p>
      )}
      {session.plan.blocks.map((_, index) => (
        <Block key={index} detail={detail} index={index} />
      ))}
    </section>
  );
}

function Legend() {
  const felt = [
    ["felt good", "bg-ridge-5"],
    ["felt bad", "bg-paper"],
    ["not noted", "bg-ridge-2"],
  ];
  return felt.map(([words, colour]) => (
    <span key={words} className="flex items-center gap-1">
      <i className={`inline-block size-2.5 rounded-full border border-ridge-5 ${colour}`} />
      {words}
    </span>
  ));
}

type BlockProps = { detail: SessionDetail; index: number };

function Block({ detail, index }: BlockProps) {
  const { session, drills } = detail;
  const block = session.plan.blocks[index];
  if (!block) return null;
  const drill = drills[block.drill_key];
  const takes = session.takes.filter((take) => take.block === index);
  const ways = waysOf(takes, drill?.variations ?? [], detail.outcomes);
  return (
    <section className="border-b border-line px-4 py-3 sm:px-8">
      <header className="flex flex-wrap items-end gap-x-3 gap-y-1 pb-1">
        <h2 className="font-semibold">
          {drill?.name ?? block.drill_key}{" "}
          <span className="font-normal text-stone">
            passes at gust {format.gust(drill?.target)} · {block.reasons.join(" · ")}
          </span>
        </h2>
        {ways.length > 1 && (
          <Link
            to={`/findings?drill=${encodeURIComponent(block.drill_key)}`}
            className="text-note font-semibold underline lg:ml-auto"
          >
            Over all sessions
          </Link>
        )}
      </header>
      <div className="grid gap-x-8 gap-y-2 lg:grid-cols-[minmax(0,4fr)_minmax(0,5fr)]">
        {drill && ways.length > 0 && (
          <WaysPicture drill={drill.key} ways={ways} target={drill.target} />
        )}
        {drill && ways.length === 0 && <WaysAhead drill={drill} order={block.order} />}
        <Takes detail={detail} takes={takes} target={drill?.target ?? null} />
      </div>
    </section>
  );
}

/** A drill of which nothing is measured yet: its body, and how each way goes that is planned. */
function WaysAhead({ drill, order }: { drill: Drill; order: readonly string[] }) {
  const asked = drill.variations.filter((one) => order.includes(one.key));
  return (
    <div className="flex items-start gap-4 border-t border-line pt-2">
      <SmallBody drill={drill.key} className="h-24 w-20" />
      <ul className="min-w-0 space-y-1 text-note leading-tight">
        {asked.map((one) => (
          <li key={one.key}>
            <b className="font-semibold">{one.name}</b>{" "}
            <span className="text-stone">{one.how}</span>
          </li>
        ))}
      </ul>
    </div>
  );
}

type TakesProps = { detail: SessionDetail; takes: readonly SessionTake[]; target: number | null };

function Takes({ detail, takes, target }: TakesProps) {
  const { session, drills } = detail;
  const fileAll = useFile(detail);
  const newest = useTakes({ sort: "recorded", descending: true }).data?.pages[0]?.takes ?? [];
  const loose = useProposals(session.id).data?.films ?? [];
  const films = new Map([
    ...newest.map((one) => [one.id, one.name] as const),
    ...loose.map((one) => [one.take_id, one.name] as const),
  ]);
  const file = (take: SessionTake, id: string) =>
    fileAll([{ position: take.position, take_id: id === NONE ? null : Number(id) }]);
  return (
    <ul>
      {takes.map((take) => (
        <li
          key={take.position}
          className="grid grid-cols-[20px_minmax(0,1fr)_minmax(0,1fr)] items-center gap-x-3 border-t border-line py-1 sm:grid-cols-[20px_minmax(0,1fr)_84px_minmax(0,1.6fr)_132px]"
          data-testid={`planned-${take.position}`}
        >
          <span className="text-stone">{take.position + 1}</span>
          <span className="truncate">
            {drills[take.drill_key]?.variations.find((one) => one.key === take.variation_key)?.name}
          </span>
          <span className="hidden sm:block">
            {take.gust !== null && target !== null && (
              <SmallRidge
                encoded={detail.outcomes[take.position]?.ridge ?? ""}
                target={target}
                width={84}
                height={28}
              />
            )}
          </span>
          <Result
            take={take}
            target={target}
            whyOut={detail.outcomes[take.position]?.why_out ?? ""}
          />
          <Select
            wide
            label={`Film of take ${take.position + 1}`}
            value={take.take_id === null ? NONE : String(take.take_id)}
            options={[
              { value: NONE, words: "No film" },
              ...(take.take_id !== null && !films.has(take.take_id)
                ? [{ value: String(take.take_id), words: take.take_name ?? "" }]
                : []),
              ...[...films].map(([value, words]) => ({ value: String(value), words })),
            ]}
            onChange={(id) => file(take, id)}
          />
        </li>
      ))}
    </ul>
  );
}

type ResultProps = { take: SessionTake; target: number | null; whyOut: string };

function Result({ take, target, whyOut }: ResultProps) {
  const notes = [
    whyOut,
    take.take_id === null && take.state,
    take.felt && `felt ${take.felt}`,
    take.fatigue !== null && `tired ${take.fatigue}`,
    take.tension !== null && `strap ${take.tension}`,
  ].filter(Boolean);
  const passed = take.gust !== null && target !== null && take.gust <= target;
  return (
    <span className="col-span-2 col-start-2 row-start-2 text-note leading-tight sm:col-span-1 sm:col-start-auto sm:row-start-auto">
      {take.gust !== null && take.take_id !== null && (
        <Link to={`/takes/${take.take_id}`} className="font-semibold underline">
          gust {format.gust(take.gust)}, {passed ? "within" : "over"} the drill’s{" "}
          {format.gust(target)}
        </Link>
      )}
      <span className="block text-stone">{notes.join(" · ")}</span>
    </span>
  );
}
