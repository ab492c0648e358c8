import { useFreeSpace, useSpace, type Space } from "../../api/settings";
import * as format from "../../formats";
import { Button } from "../../ui/Button";
import { FaultView } from "../../ui/FaultView";
import { MoveLibrary } from "./MoveLibrary";
import { SecondDisk } from "./SecondDisk";
import { KIND_WORDS, monthWords, shares } from "./space";

/** Where the space goes: the library as strata of kinds, its films by month. */
export function SpaceSection() {
  const found = useSpace();
  const free = useFreeSpace();
  if (found.isLoadingError) return <FaultView error={found.error} />;
  if (!found.data) return null;
  const { kinds, months, free_bytes, total_bytes, second, moving, library, relocating } =
    found.data;
  const again = kinds.filter((one) => one.made).reduce((sum, one) => sum + one.bytes, 0);
  return (
    <section aria-label="Where the space goes" className="border-b border-line px-4 py-4 sm:px-8">
      <h2 className="title text-heading">Where the space goes</h2>
      <p className="max-w-[720px] text-note text-stone">
        {format.fileSize(free_bytes)} of the disk’s {format.fileSize(total_bytes)} are free.
      </p>
      {free.error && <FaultView error={free.error} />}
      <Strata kinds={kinds} />
      {months.length > 1 && <Months months={months} />}
      <SecondDisk second={second} moving={moving} />
      <MoveLibrary library={library} relocating={relocating} />
      {again > 0 && (
        <p className="mt-3 flex flex-wrap items-center gap-3 text-note">
          <Button onClick={() => free.mutate()}>Free {format.fileSize(again)}</Button>
          <span className="text-stone">
            {KIND_WORDS.parts}: they are made again when they are wanted.
          </span>
        </p>
      )}
    </section>
  );
}

const LOOKS: Record<Space["kinds"][number]["key"], string> = {
  films: "bg-ridge-5",
  second: "bg-ridge-1",
  rejected: "bg-ember",
  arriving: "bg-lamp",
  copies: "bg-ridge-4",
  renders: "bg-ridge-3",
  database: "bg-stone",
  snapshots: "bg-ridge-2",
  parts: "bg-lichen",
};

function Strata({ kinds }: { kinds: Space["kinds"] }) {
  const shown = shares(kinds);
  return (
    <div className="mt-3 max-w-[720px]">
      <div aria-hidden="true" className="flex h-6 w-full gap-px overflow-hidden bg-paper">
        {shown.map((one) => (
          <i key={one.key} className={LOOKS[one.key]} style={{ width: `${100 * one.share}%` }} />
        ))}
      </div>
      <ul className="mt-2 grid grid-cols-1 gap-x-6 text-note sm:grid-cols-2">
        {shown.map((one) => (
          <li key={one.key} className="flex items-baseline gap-2 border-b border-line py-1">
            <i aria-hidden="true" className={`size-3 shrink-0 ${LOOKS[one.key]}`} />
            <span className="min-w-0 flex-1">{KIND_WORDS[one.key]}</span>
            <span className="font-semibold">{format.fileSize(one.bytes)}</span>
          </li>
        ))}
      </ul>
    </div>
  );
}

/** Films by the month in which they were filmed, as a ridge of bars. */
function Months({ months }: { months: Space["months"] }) {
  const most = Math.max(...months.map((one) => one.bytes), 1);
  return (
    <ol aria-label="Films by month" className="mt-3 flex max-w-[720px] items-end gap-1">
      {months.map((one) => (
        <li key={one.month} className="min-w-0 flex-1 text-center text-fine text-stone">
          <span className="sr-only">
            {monthWords(one.month)}: {format.fileSize(one.bytes)}
          </span>
          <i
            aria-hidden="true"
            className="block bg-ridge-4"
            style={{ height: Math.max(2, (56 * one.bytes) / most) }}
          />
          <span aria-hidden="true" className="block truncate">
            {monthWords(one.month)}
          </span>
        </li>
      ))}
    </ol>
  );
}
