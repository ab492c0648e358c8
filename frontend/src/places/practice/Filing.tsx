import { Link } from "react-router";
import {
  useProposals,
  useSessionChange,
  type Match,
  type Proposals,
  type SessionDetail,
} from "../../api/practice";
import * as format from "../../formats";
import { Button } from "../../ui/Button";
import { Key } from "../../ui/Key";
import { useKeys } from "../../ui/useKeys";
import { useWidth } from "../../ui/useWidth";
import { clockWords } from "./steps";

const SURE = 0.8;

/** Films that could belong to the session's takes, to be confirmed or left loose. */
export function Filing({ detail }: { detail: SessionDetail }) {
  const { session } = detail;
  const found = useProposals(session.id);
  const change = useSessionChange(session.id);
  const proposals = found.data;
  const matches = proposals?.matches ?? [];
  const sure = matches.filter((one) => one.certainty >= SURE);
  const file = (one: Match) =>
    change.mutate({ act: "note", position: one.position, note: { take_id: one.film_id } });
  useKeys({ f: () => sure.forEach(file) });
  if (!proposals) return null;
  if (proposals.films.length === 0) {
    return (
      <p className="border-b border-line px-4 py-3 text-note sm:px-8">
        No film waits to be filed.{" "}
        <Link to="/takes" className="font-semibold underline">
          Bring the clips in
        </Link>
        ; those with a slate file themselves here.
      </p>
    );
  }
  return (
    <section
      aria-label="Films to file"
      className="space-y-3 border-b border-line bg-paper px-4 py-3 sm:px-8"
    >
      <header className="flex flex-wrap items-baseline gap-x-4 gap-y-2">
        <h2 className="label-wide">Films to file</h2>
        <p className="text-note text-stone">
          {proposals.films.length} loose, {matches.length} could belong here.
          {proposals.offset_s !== null && ` ${clockSays(proposals.offset_s)}`}
        </p>
        {sure.length > 0 && (
          <span className="ml-auto">
            <Button look="main" onClick={() => sure.forEach(file)}>
              File the {sure.length} that are sure <Key>F</Key>
            </Button>
          </span>
        )}
      </header>
      <Drawing proposals={proposals} detail={detail} />
      <ul>
        {matches.map((one) => (
          <li
            key={one.film_id}
            className="grid grid-cols-[minmax(0,1fr)_auto] items-center gap-x-4 border-t border-line py-1.5 sm:grid-cols-[minmax(0,1fr)_110px_minmax(0,1fr)_auto]"
          >
            <span className="truncate font-semibold">
              {proposals.films.find((film) => film.take_id === one.film_id)?.name} → take{" "}
              {one.position + 1}
            </span>
            <Certainty value={one.certainty} />
            <span className="text-note text-stone">{one.reason}</span>
            <Button className="justify-self-end" onClick={() => file(one)}>
              File
            </Button>
          </li>
        ))}
      </ul>
    </section>
  );
}

function clockSays(offset: number): string {
  const size = clockWords(Math.abs(offset));
  if (Math.abs(offset) < 5) return "The camera’s clock is right.";
  return `The camera’s clock is ${size} ${offset > 0 ? "ahead" : "behind"}.`;
}

function Certainty({ value }: { value: number }) {
  return (
    <span className="hidden items-center gap-2 text-small sm:flex">
      <span className="h-1.5 w-14 bg-line">
        <i
          className={`block h-full ${value >= SURE ? "bg-lichen-deep" : "bg-ridge-3"}`}
          style={{ width: `${100 * value}%` }}
        />
      </span>
      {format.share(value)}
    </span>
  );
}

const HEIGHT = 96;
const TAKES_Y = 26;
const FILMS_Y = 74;

/** Planned takes above, films below, each film joined to the take it could be. */
function Drawing({ proposals, detail }: { proposals: Proposals; detail: SessionDetail }) {
  const [box, width] = useWidth<HTMLDivElement>();
  const count = detail.session.takes.length;
  const take = (position: number) => 10 + ((width - 20) * (position + 0.5)) / Math.max(count, 1);
  const films = [...proposals.films].sort((a, b) => (a.begun_s ?? 0) - (b.begun_s ?? 0));
  const film = (index: number) => 10 + ((width - 20) * (index + 0.5)) / Math.max(films.length, 1);
  const dashes = { slate: undefined, clock: "6 3", order: "1 4" };
  return (
    <div ref={box}>
      {width > 0 && (
        <svg
          width={width}
          height={HEIGHT}
          role="img"
          aria-label={`${proposals.matches.length} of ${films.length} films joined to planned takes`}
        >
          <text x="10" y="12" fontSize="11.5" fill="var(--stone)">
            planned takes · lines: by slate whole, by clock dashed, by order dotted
          </text>
          {proposals.matches.map((one) => {
            const at = films.findIndex((two) => two.take_id === one.film_id);
            return (
              <line
                key={one.film_id}
                x1={take(one.position)}
                x2={film(at)}
                y1={TAKES_Y + 6}
                y2={FILMS_Y - 6}
                stroke="var(--ridge-4)"
                strokeWidth="1.6"
                strokeDasharray={dashes[one.how]}
              />
            );
          })}
          {detail.session.takes.map((one) => (
            <rect
              key={one.position}
              x={take(one.position) - 5}
              y={TAKES_Y - 6}
              width="10"
              height="12"
              fill={
                one.take_id !== null
                  ? "var(--lichen-deep)"
                  : one.state === "filmed"
                    ? "var(--ridge-3)"
                    : "none"
              }
              stroke="var(--ridge-4)"
            />
          ))}
          {films.map((one, index) => (
            <rect
              key={one.take_id}
              x={film(index) - 6}
              y={FILMS_Y - 6}
              width="12"
              height="12"
              fill="var(--ridge-5)"
            />
          ))}
          <text x="10" y={HEIGHT - 3} fontSize="11.5" fill="var(--stone)">
            films, in the order of their clocks
          </text>
        </svg>
      )}
    </div>
  );
}
