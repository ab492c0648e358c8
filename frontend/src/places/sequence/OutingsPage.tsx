import { useEffect, useState } from "react";
import { Link, useNavigate } from "react-router";
import { addOuting, useOutings, type OutingItem, type StartItem } from "../../api/outings";
import { useChanged } from "../../api/keys";
import * as format from "../../formats";
import { Key } from "../../keys/Key";
import { useKeys } from "../../keys/useKeys";
import { Button } from "../../ui/Button";
import { Dialog } from "../../ui/Dialog";
import { FaultView } from "../../ui/FaultView";
import { TextField } from "../../ui/TextField";
import { useSave } from "../../ui/useSave";
import { ShotFrame } from "./ShotFrame";

/** Outings, and starting points for another. */
export function OutingsPage() {
  const found = useOutings();
  const [begun, setBegun] = useState<StartItem | "empty" | null>(null);
  useEffect(() => {
    document.title = "Sequence · Ridgewind";
  }, []);
  useKeys({ "Plan an outing": { n: () => setBegun("empty") } });
  if (found.isLoadingError) return <FaultView error={found.error} />;
  if (!found.data) return <p className="p-8 text-stone">Opening the outings…</p>;
  const { outings, starts } = found.data;
  return (
    <>
      <header className="flex flex-wrap items-center gap-x-4 gap-y-2 px-4 pt-4 pb-3 sm:px-8">
        <h1 className="title text-title leading-tight">Sequence</h1>
        <p className="text-stone">
          {outings.length === 0
            ? "Plan an outing as a list of shots, so that what you bring home cuts together."
            : "Outings, the newest first. Pale is still to film."}
        </p>
        <Button look="main" className="ml-auto" onClick={() => setBegun("empty")}>
          Plan an outing <Key>N</Key>
        </Button>
      </header>
      {outings.length > 0 && (
        <ul aria-label="Outings" className="border-t border-line">
          {outings.map((one) => (
            <OutingRow key={one.id} item={one} />
          ))}
        </ul>
      )}
      <section aria-label="Starting points" className="px-4 py-4 sm:px-8">
        <h2 className="label-wide mb-2">Or begin with a usual scene</h2>
        <ul className="grid gap-x-8 gap-y-4 lg:grid-cols-2">
          {starts.map((start) => (
            <li key={start.key}>
              <button
                type="button"
                onClick={() => setBegun(start)}
                className="rounded block w-full border border-transparent p-1 text-left hover:border-ridge-2 hover:bg-paper"
              >
                <span className="font-semibold">{start.name}</span>{" "}
                <span className="text-note text-stone">
                  {format.counted(start.shots.length, "shot")}
                </span>
                <span className="mt-1 grid grid-cols-7 gap-1">
                  {start.shots.map((shot, index) => (
                    <ShotFrame key={index} shot={shot} />
                  ))}
                </span>
              </button>
            </li>
          ))}
        </ul>
      </section>
      {begun && (
        <BeginDialog start={begun === "empty" ? null : begun} onClose={() => setBegun(null)} />
      )}
    </>
  );
}

/** What is still to film is pale; the rest stands on the colour that its state has in the shot list. */
const OF_STATE = {
  open: "border-b-3 border-transparent opacity-30",
  got: "border-b-3 border-lichen",
  impossible: "border-b-3 border-dashed border-ember",
};

function OutingRow({ item }: { item: OutingItem }) {
  const { facts } = item;
  const where = [facts.place, facts.day && format.when(facts.day).day, facts.light];
  return (
    <li className="relative flex flex-wrap items-baseline gap-x-4 gap-y-1.5 border-b border-line px-4 py-2.5 hover:bg-paper sm:px-8">
      <Link to={`/sequence/${item.id}`} className="font-semibold after:absolute after:inset-0">
        {facts.name}
      </Link>
      <span className="text-note text-stone">{where.filter(Boolean).join(", ")}</span>
      <span className="ml-auto text-note tabular-nums">
        {item.shots === 0
          ? "no shots yet"
          : item.open === 0
            ? `${format.counted(item.shots, "shot")}, all done`
            : `${item.open} of ${format.counted(item.shots, "shot")} to film`}
      </span>
      {item.frames.length > 0 && (
        <span className="grid w-full grid-cols-7 gap-1 sm:grid-cols-14">
          {item.frames.map(({ shot, state }, index) => (
            <ShotFrame key={index} shot={shot} className={`block w-full ${OF_STATE[state]}`} />
          ))}
        </span>
      )}
    </li>
  );
}

/** Asks for a name, and what a starting point is about. */
function BeginDialog({ start, onClose }: { start: StartItem | null; onClose: () => void }) {
  const navigate = useNavigate();
  const changed = useChanged();
  const { save, saving, problem } = useSave();
  const [name, setName] = useState("");
  const [place, setPlace] = useState("");
  const [about, setAbout] = useState("");
  const named = name.trim() || about.trim() || place.trim();
  const begin = () =>
    void save(
      () =>
        addOuting({
          name: named,
          place,
          day: "",
          light: "",
          brief_id: null,
          setup_id: null,
          start: start?.key ?? null,
          about,
        }),
      (kept) => {
        changed("outings");
        void navigate(`/sequence/${kept.id}`);
      },
    );
  return (
    <Dialog title={start?.name ?? "An outing"} open onClose={onClose}>
      <form
        className="space-y-3"
        onSubmit={(event) => {
          event.preventDefault();
          if (named) begin();
        }}
      >
        {start && (
          <TextField
            label={start.asks}
            value={about}
            onChange={setAbout}
            hint="It is put into the shots."
          />
        )}
        <TextField
          label="Name of the outing"
          value={name}
          onChange={setName}
          problem={problem("name")}
        />
        <TextField label="Place" value={place} onChange={setPlace} />
        <Button look="main" type="submit" disabled={saving || !named}>
          Plan it
        </Button>
      </form>
    </Dialog>
  );
}
