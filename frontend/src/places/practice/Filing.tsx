import { useState } from "react";
import { Link } from "react-router";
import { useProposals, type Match, type SessionDetail } from "../../api/practice";
import * as format from "../../formats";
import { Button } from "../../ui/Button";
import { Key } from "../../keys/Key";
import { useKeys } from "../../keys/useKeys";
import { FilingDrawing } from "./FilingDrawing";
import { clockWords } from "./steps";
import { useFile } from "./useFile";

const SURE = 0.8;

/** Films that could belong to the session's takes, to be confirmed or left loose. */
export function Filing({ detail }: { detail: SessionDetail }) {
  const { session } = detail;
  const found = useProposals(session.id);
  const [moving, setMoving] = useState(false);
  const fileAll = useFile(detail);
  const proposals = found.data;
  const matches = proposals?.matches ?? [];
  const sure = matches.filter((one) => one.certainty >= SURE);
  const filed = (one: Match) => ({ position: one.position, take_id: one.film_id });
  const file = (one: Match) => fileAll([filed(one)]);
  const fileSure = () => sure.length > 0 && fileAll(sure.map(filed));
  const drop = (film: number, position: number | null) => {
    const from = session.takes.find((take) => take.take_id === film)?.position;
    if (position !== null) {
      fileAll([{ position, take_id: film }]);
    } else if (from !== undefined) {
      fileAll([{ position: from, take_id: null }]);
    }
  };
  useKeys({ "File what is sure": { f: fileSure } });
  if (!proposals) return null;
  const anyFiled = session.takes.some((take) => take.take_id !== null);
  if (proposals.films.length === 0 && !anyFiled) {
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
  const unfiled = session.takes.some((take) => take.state === "filmed" && take.take_id === null);
  if (matches.length === 0 && !unfiled && !moving) {
    return (
      <p className="flex flex-wrap items-baseline gap-x-2 border-b border-line px-4 py-2 text-note text-stone sm:px-8">
        {proposals.films.length === 0
          ? "No film waits to be filed."
          : "Every take that was filmed has its film."}
        <Button look="bare" onClick={() => setMoving(true)}>
          Move films
        </Button>
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
          {proposals.films.length === 0
            ? "No film waits to be filed."
            : `${proposals.films.length} loose, ${matches.length} could belong here.`}
          {proposals.offset_s !== null && ` ${clockSays(proposals.offset_s)}`}
        </p>
        {sure.length > 0 && (
          <span className="ml-auto">
            <Button look="main" onClick={fileSure}>
              File the {sure.length} that are sure <Key>F</Key>
            </Button>
          </span>
        )}
      </header>
      <FilingDrawing proposals={proposals} detail={detail} onFile={drop} />
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
            <span className="row-start-2 text-note text-stone sm:row-start-auto">{one.reason}</span>
            <Button
              className="col-start-2 row-span-2 row-start-1 justify-self-end sm:col-start-auto sm:row-span-1 sm:row-start-auto"
              onClick={() => file(one)}
            >
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
