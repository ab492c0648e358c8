import { useEffect, type ReactNode } from "react";
import { Link, useNavigate } from "react-router";
import {
  actOnItem,
  actOnSetup,
  useKit,
  type Kit,
  type KitKind,
  type SetupItem,
} from "../../api/kit";
import { useChanged } from "../../api/keys";
import { ArchiveButton } from "../../ui/ArchiveButton";
import * as format from "../../formats";
import { Button } from "../../ui/Button";
import { FaultView } from "../../ui/FaultView";
import { Key } from "../../keys/Key";
import { useNotices } from "../../ui/notices";
import { Segments } from "../../ui/Segments";
import { useKeys } from "../../keys/useKeys";
import { useUnits } from "../../ui/useUnits";
import { ViewWedge } from "./ViewWedge";
import { cameraInWords, lensInWords, setupInWords, supportInWords } from "./words";

const SYSTEMS = [
  { value: "metric", words: "Metric" },
  { value: "imperial", words: "Imperial" },
] as const;

/** Everything that a take can be filmed with, and the set-ups that combine it. */
export function KitPage() {
  const found = useKit();
  const { system, change } = useUnits();
  const navigate = useNavigate();
  useEffect(() => {
    document.title = "Kit · Ridgewind";
  }, []);
  useKeys({ "New set-up": { n: () => void navigate("/kit/setups/new") } });
  if (found.isLoadingError) return <FaultView error={found.error} />;
  if (!found.data) return <p className="p-8 text-stone">Reading the kit…</p>;
  const kit = found.data;
  return (
    <>
      <header className="flex flex-wrap items-center gap-x-4 gap-y-3 px-4 pt-4 pb-3 sm:px-8">
        <h1 className="title text-title leading-tight">Kit</h1>
        <p className="text-stone">A set-up belongs to every take filmed with it.</p>
        <div className="flex items-center gap-3 sm:ml-auto">
          <Segments label="Units" value={system} options={SYSTEMS} onChange={change} />
          <Button look="main" onClick={() => void navigate("/kit/setups/new")}>
            New set-up <Key>N</Key>
          </Button>
        </div>
      </header>
      <Setups kit={kit} />
      <Shelf kit={kit} kind="cameras" words="Cameras" one="camera" />
      <Shelf kit={kit} kind="lenses" words="Lenses" one="lens" />
      <Shelf kit={kit} kind="supports" words="Supports" one="support" />
    </>
  );
}

function Setups({ kit }: { kit: Kit }) {
  const changed = useChanged();
  const { fail } = useNotices();
  const follow = () => changed("kit");
  const use = (item: SetupItem) => actOnSetup(item.id, "use").then(follow, fail);
  return (
    <section aria-label="Set-ups" className="border-t border-line bg-paper">
      <ul>
        {kit.setups.map((item) => (
          <Row
            key={item.id}
            to={`/kit/setups/${item.id}`}
            name={item.name}
            dim={item.archived}
            words={setupInWords(item, kit)}
            note={[
              item.usual && "for new takes",
              item.takes > 0 && format.takes(item.takes),
              item.typical && "typical",
              item.archived && "archived",
            ]}
            drawn={<ViewWedge focalMm={item.focal_eq_mm} />}
            figure={format.millimetres(Math.round(item.focal_eq_mm))}
          >
            {/* Room for it in every row, so that focal lengths stand below each other. */}
            <span className="sm:min-w-[48px]">
              {!item.usual && !item.archived && (
                <Button look="bare" onClick={() => void use(item)}>
                  Use
                </Button>
              )}
            </span>
            <ArchiveButton
              among
              name={item.name}
              archived={item.archived}
              act={(act) => actOnSetup(item.id, act)}
              onChanged={follow}
            />
          </Row>
        ))}
      </ul>
    </section>
  );
}

type ShelfProps = { kit: Kit; kind: KitKind; words: string; one: string };

function Shelf({ kit, kind, words, one }: ShelfProps) {
  const changed = useChanged();
  const { inUnits } = useUnits();
  const inWords = {
    cameras: kit.cameras.map((item) => cameraInWords(item.spec, inUnits)),
    lenses: kit.lenses.map((item) => lensInWords(item.spec, inUnits)),
    supports: kit.supports.map((item) => supportInWords(item.spec, inUnits)),
  }[kind];
  return (
    <section aria-label={words} className="border-t border-line">
      <header className="flex items-center gap-3 px-4 pt-4 pb-1 sm:px-8">
        <h2 className="title text-heading">{words}</h2>
        <Link
          to={`/kit/${kind}/new`}
          className="ml-auto text-note font-semibold underline hover:text-ridge-4"
        >
          New {one}
        </Link>
      </header>
      <ul className="grid pb-3 md:grid-cols-2 md:gap-x-10 md:px-8">
        {kit[kind].map((item, index) => (
          <Row
            key={item.id}
            inset
            to={`/kit/${kind}/${item.id}`}
            name={item.name}
            dim={item.archived}
            words={inWords[index] ?? ""}
            note={[
              item.setups.length > 0 && `in ${format.counted(item.setups.length, "set-up")}`,
              item.typical && "typical",
              item.archived && "archived",
            ]}
          >
            <ArchiveButton
              among
              name={item.name}
              archived={item.archived}
              act={(act) => actOnItem(item.id, act)}
              onChanged={() => changed("kit")}
            />
          </Row>
        ))}
      </ul>
    </section>
  );
}

type RowProps = {
  inset?: boolean;
  to: string;
  name: string;
  words: string;
  note: (string | false)[];
  dim: boolean;
  drawn?: ReactNode;
  figure?: string;
  children: ReactNode;
};

function Row({ inset = false, to, name, words, note, dim, drawn, figure, children }: RowProps) {
  return (
    <li
      className={`group relative flex items-center gap-x-3 border-b border-line px-4 py-2 hover:bg-paper sm:px-8 ${inset ? "md:px-0" : ""}`}
    >
      {drawn}
      <div className="min-w-0 flex-1">
        <Link
          to={to}
          className={`font-semibold after:absolute after:inset-0 ${dim ? "text-stone" : ""}`}
        >
          {name}
        </Link>
        <p className="text-small text-stone">
          {figure && <span className="sm:hidden">{figure} · </span>}
          {words}
          {note.filter(Boolean).map((part) => ` · ${part as string}`)}
        </p>
      </div>
      {figure && (
        <span className="figure-narrow hidden text-title leading-none sm:inline">{figure}</span>
      )}
      <span className="relative z-(--layer-raised) flex shrink-0">{children}</span>
    </li>
  );
}
