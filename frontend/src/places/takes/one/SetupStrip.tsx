import { useState } from "react";
import { Link } from "react-router";
import type { TakeChange, TakeDetail } from "../../../api/client";
import { addBrief, useBriefs, useKit } from "../../../api/kit";
import { useChanged } from "../../../api/keys";
import * as format from "../../../formats";
import { NameDialog } from "../../../ui/NameDialog";
import { useNotices } from "../../../ui/notices";
import { NumberField } from "../../../ui/NumberField";
import { Select } from "../../../ui/Select";
import { useSaveBrief } from "../../plan/door";
import { Part } from "./BriefStrip";
import { fileOffers } from "./fileOffers";

type Props = { detail: TakeDetail; onPoint: (change: TakeChange) => void };

/** What the take was filmed with, and what its file and its brief leave to decide. */
export function SetupStrip({ detail, onPoint }: Props) {
  const setups = useKit().data?.setups ?? [];
  const { setup } = detail;
  const options = setups
    .filter((item) => !item.archived || item.id === setup?.id)
    .map((item) => ({ value: String(item.id), words: item.name }));
  if (setup && !setups.some((item) => item.id === setup.id)) {
    options.push({ value: String(setup.id), words: setup.name });
  }
  if (!setup) options.unshift({ value: "", words: "Not said" });
  return (
    <section aria-label="Set-up" className="contents">
      <Part words="Set-up">
        <span className="inline-block w-[180px]">
          <Select
            label="Set-up of this take"
            value={setup ? String(setup.id) : ""}
            options={options}
            wide
            onChange={(next) => next && onPoint({ setup_id: Number(next) })}
          />
        </span>
      </Part>
      <Part words="Lens">
        <NumberField
          label="Equivalent focal length, mm"
          unit="mm"
          value={Number(detail.focal_eq_mm.toFixed(1))}
          min={1}
          max={3000}
          onChange={(own_focal_eq_mm) => onPoint({ own_focal_eq_mm })}
        />
      </Part>
      {detail.own_focal_eq_mm !== null && setup && (
        <Act onClick={() => onPoint({ own_focal_eq_mm: null })}>
          use the set-up’s {format.millimetres(Math.round(setup.focal_eq_mm))}
        </Act>
      )}
      {detail.clip && !detail.clip.from_log && <FilmedAt detail={detail} onPoint={onPoint} />}
      {fileOffers(detail).map((offer) => (
        <span key={offer.words} className="text-note text-stone">
          {offer.words}{" "}
          {offer.focal_eq_mm !== undefined && (
            <Act onClick={() => onPoint({ own_focal_eq_mm: offer.focal_eq_mm ?? null })}>
              use it
            </Act>
          )}
        </span>
      ))}
      {detail.brief_link === null && <OwnBrief detail={detail} onPoint={onPoint} />}
      <Link
        to={detail.brief_link ? `/plan/briefs?brief=${detail.brief_link.id}` : "/plan/briefs"}
        className="ml-auto text-note text-stone underline hover:text-ink"
      >
        All of the brief
      </Link>
    </section>
  );
}

/** The rate at which it was filmed, which is not how it plays where the file itself is slowed. */
function FilmedAt({ detail, onPoint }: Props) {
  const plays = detail.clip?.fps ?? 0;
  return (
    <>
      <Part words="Filmed at">
        <NumberField
          label="Filmed at, frames a second"
          unit="/s"
          value={Number((detail.capture_fps ?? plays).toFixed(2))}
          min={1}
          max={2000}
          onChange={(own_capture_fps) => onPoint({ own_capture_fps })}
        />
      </Part>
      {detail.own_capture_fps !== null && (
        <Act onClick={() => onPoint({ own_capture_fps: null })}>as its file says</Act>
      )}
    </>
  );
}

/** A brief that was changed for one take alone may become everyone's, or a new one. */
function OwnBrief({ detail, onPoint }: Props) {
  const [naming, setNaming] = useState(false);
  const { fail } = useNotices();
  const changed = useChanged();
  const save = useSaveBrief();
  const named = useBriefs().data?.briefs ?? [];
  const parent = named.find((item) => item.id === detail.brief_parent?.id && !item.typical);
  const spread = () => {
    if (!parent) return;
    save(parent, parent.name, detail.brief, { name: parent.name, brief: parent.brief })
      .then(() => onPoint({ brief_id: parent.id }))
      .catch(fail);
  };
  const keep = (name: string) => {
    addBrief({ name, brief: detail.brief })
      .then((made) => (changed("verdicts"), onPoint({ brief_id: made.id })))
      .catch(fail);
  };
  return (
    <span className="inline-flex flex-wrap gap-x-2 text-note text-stone">
      Changed for this take alone:
      {parent && <Act onClick={spread}>put it into “{parent.name}”</Act>}
      <Act onClick={() => setNaming(true)}>keep as a new brief</Act>
      {naming && (
        <NameDialog
          title="Keep as a new brief"
          first={detail.take.name}
          act="Keep"
          open
          onClose={() => setNaming(false)}
          onName={keep}
        />
      )}
    </span>
  );
}

function Act({ onClick, children }: { onClick: () => void; children: React.ReactNode }) {
  return (
    <button type="button" onClick={onClick} className="font-semibold underline hover:text-ridge-4">
      {children}
    </button>
  );
}
