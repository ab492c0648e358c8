import { useEffect } from "react";
import { Link, useNavigate } from "react-router";
import { useEye, useThreshold, type Eye, type FeelEye } from "../../../api/eye";
import { each } from "../../../api/each";
import * as format from "../../../formats";
import { Button } from "../../../ui/Button";
import { FaultView } from "../../../ui/FaultView";
import { Key } from "../../../keys/Key";
import { useNotices } from "../../../ui/notices";
import { useKeys } from "../../../keys/useKeys";
import { FindingsTabs } from "../FindingsTabs";
import { EyeStrip } from "./EyeStrip";

const ENOUGH_MARKS = 8;

/** What the shooter's own marks say: the gust at which smooth enough ends. */
export function EyePage() {
  const found = useEye();
  const navigate = useNavigate();
  useEffect(() => {
    document.title = "Your eye · Ridgewind";
  }, []);
  useKeys({ "Mark takes blind": { b: () => void navigate("/findings/eye/blind") } });
  if (found.isLoadingError) return <FaultView error={found.error} />;
  if (!found.data) return <p className="p-8 text-stone">Reading your marks…</p>;
  const { feels, polish, unmarked } = found.data;
  const marked = feels.reduce((sum, feel) => sum + feel.marks.length, 0);
  return (
    <>
      <FindingsTabs />
      <header className="flex flex-wrap items-center gap-x-4 gap-y-2 border-b border-line px-4 pt-4 pb-3 sm:px-8">
        <h1 className="title text-title leading-tight">Your eye</h1>
        <p className="text-stone">
          {marked === 0
            ? "Mark takes smooth enough or not, and your own threshold appears here."
            : format.counted(marked, "mark")}
        </p>
        <div className="sm:ml-auto">
          <Button
            look="main"
            disabled={unmarked === 0}
            onClick={() => void navigate("/findings/eye/blind")}
          >
            {unmarked === 0
              ? marked === 0
                ? "No take to mark yet"
                : "Every take is marked"
              : `Mark ${format.takes(unmarked)} blind`}{" "}
            <Key>B</Key>
          </Button>
        </div>
      </header>
      {feels.map((feel) => (
        <Feel key={feel.feel} found={feel} />
      ))}
      <Polish threshold={polish} />
    </>
  );
}

function Feel({ found }: { found: FeelEye }) {
  const { threshold, feel } = found;
  const { use, undo } = useThreshold();
  const { notify, fail } = useNotices();
  const value = format.gust(clamped(threshold.value));
  const inUse = found.used.length === 1 && format.gust(found.used[0]) === value;
  const take = () =>
    each(use, feel, {
      onError: fail,
      onSuccess: (used) =>
        notify({
          text: `${format.FEEL_WORDS[feel]} now allows ${value}.`,
          undo: () => each(undo, used, { onError: fail }),
        }),
    });
  return (
    <section
      aria-label={format.FEEL_WORDS[feel]}
      className="border-b border-line px-4 py-4 sm:px-8"
      data-testid={`eye-${feel}`}
    >
      <header className="flex flex-wrap items-baseline gap-x-4 gap-y-1">
        <h2 className="title text-heading">{format.FEEL_WORDS[feel]}</h2>
        <p className="text-note text-stone">
          {threshold.marks === 0 ? (
            `No marks yet. The usual target is ${format.gust(found.default)}.`
          ) : (
            <>
              <b className="font-semibold text-ink">Smooth enough up to {value}</b> (
              {format.gust(clamped(threshold.low))} to {format.gust(clamped(threshold.high))}, from{" "}
              {format.counted(threshold.marks, "mark")}). Your briefs allow{" "}
              {found.used.map((one) => format.gust(one)).join(" and ") ||
                format.gust(found.default)}
              .
              {!threshold.offered &&
                ` ${ENOUGH_MARKS - threshold.marks} more before it is offered as the target: fewer could be chance.`}
            </>
          )}
        </p>
        {threshold.offered && (
          <span className="ml-auto">
            <Button onClick={take} disabled={inUse || use.isPending}>
              {inUse ? `${value} is the target` : `Use ${value} as the target`}
            </Button>
          </span>
        )}
      </header>
      {found.marks.length > 0 && (
        <EyeStrip
          marks={found.marks.map((mark) => ({ value: mark.gust, ...mark }))}
          threshold={threshold}
          usual={found.default}
          most={10}
          unit=""
          label={`Marks for ${feel}, by gust`}
        />
      )}
      {found.surprises.length > 0 && (
        <div className="mt-1 text-note">
          <h3 className="label-wide">Look again</h3>
          <ul className="flex flex-wrap gap-x-6">
            {found.surprises.map((mark) => (
              <li key={`${mark.take_id} ${mark.gust}`}>
                <Link to={`/takes/${mark.take_id}`} className="font-semibold underline">
                  {mark.take_name}
                </Link>{" "}
                <span className="text-stone">
                  reads {format.gust(mark.gust)}, and you said{" "}
                  {mark.smooth ? "smooth" : "not smooth"}
                </span>
              </li>
            ))}
          </ul>
        </div>
      )}
    </section>
  );
}

const clamped = (gust: number) => Math.max(0, Math.min(10, gust));

function Polish({ threshold }: { threshold: Eye["polish"] }) {
  return (
    <section aria-label="Polish" className="px-4 py-4 sm:px-8">
      <h2 className="title text-heading">How far polish can go</h2>
      <p className="text-note text-stone" data-testid="eye-polish">
        {threshold.marks === 0
          ? "No marks on polished previews yet. See a polish on a take, and say whether it works."
          : `It works for you up to ${Math.max(0, threshold.value).toFixed(1)} % crop (${Math.max(0, threshold.low).toFixed(0)} to ${threshold.high.toFixed(0)} %, from ${format.counted(threshold.marks, "mark")}).`}
      </p>
    </section>
  );
}
