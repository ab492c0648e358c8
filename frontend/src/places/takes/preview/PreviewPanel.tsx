import { useEffect, useRef, useState } from "react";
import type { RemedyLine, TakeDetail } from "../../../api/client";
import {
  renderFor,
  useForgetRender,
  useMark,
  useRender,
  useRenders,
  useRemedyDetails,
  useWindows,
  type Render,
  type RemedyChoice,
} from "../../../api/decisions";
import { each } from "../../../api/each";
import * as format from "../../../formats";
import { Button } from "../../../ui/Button";
import { FaultView } from "../../../ui/FaultView";
import { Key } from "../../../keys/Key";
import { Progress } from "../../../ui/Progress";
import { useNotices } from "../../../ui/notices";
import { useKeys } from "../../../keys/useKeys";
import { usePlayhead, usePlaying } from "../one/playhead";
import { Controls } from "./Controls";
import { agreement, edgesApart } from "./curve";
import { SideBySide } from "./SideBySide";
import { Travel, whereItWent } from "./Travel";

type Props = { detail: TakeDetail; remedy: RemedyLine; onClose: () => void };

/** One remedy seen: rendered from the clip itself, measured again, and taken along. */
export function PreviewPanel({ detail, remedy, onClose }: Props) {
  const { take, brief, clip, judgement } = detail;
  const [wanted, setWanted] = useState<RemedyChoice>({ ...PLAIN, remedy: remedy.remedy });
  const details = useRemedyDetails(take.id, brief, true).data;
  const windows = useWindows(take.id, wanted, brief);
  const renders = useRenders(take.id);
  const ask = useRender(take.id);
  const forget = useForgetRender();
  const mark = useMark();
  const playhead = usePlayhead();
  const { fail } = useNotices();
  const preview = renderFor(renders.data?.renders, wanted, "preview", remedy);
  const done = preview?.state === "done" ? preview : undefined;
  const { mutate } = ask;
  // A subject that is marked anew while this is open is another film to be seen.
  const held = remedy.glide === null ? null : `${remedy.crop_pct} ${remedy.subject_gust}`;
  useEffect(() => {
    mutate({ wanted: { ...PLAIN, remedy: remedy.remedy }, purpose: "preview" });
  }, [mutate, remedy.remedy, held]);
  const render = () => ask.mutate({ wanted, purpose: "preview" });
  const worked = (smooth: boolean) =>
    done &&
    each(
      mark,
      { id: take.id, smooth: done.worked === smooth ? null : smooth, render_id: done.id },
      { onError: fail },
    );
  useKeys({
    "Play or pause both": { " ": () => playhead.toggle() },
    "Render it again": { r: render },
    "It works for you, or not": { y: () => worked(true), n: () => worked(false) },
    "Close the preview": { Escape: onClose },
  });
  const panel = useRef<HTMLElement>(null);
  useEffect(() => {
    void panel.current?.scrollIntoView({ block: "nearest" });
  }, []);
  if (!clip || !judgement) return null;
  return (
    <section
      ref={panel}
      aria-label="Preview"
      className="border-t border-line bg-paper px-4 py-3 sm:px-8"
      data-testid="preview"
    >
      <header className="mb-2 flex flex-wrap items-baseline gap-x-4 gap-y-1">
        <h2 className="title text-heading">{format.REMEDY_WORDS[remedy.remedy]}, seen</h2>
        {done && <Measured render={done} />}
        <span className="ml-auto flex gap-1">
          <PlayButton />
          <Button look="bare" onClick={onClose}>
            Close <Key>Esc</Key>
          </Button>
        </span>
      </header>
      {ask.error && <FaultView error={ask.error} />}
      <div className="grid grid-cols-1 gap-x-7 gap-y-4 lg:grid-cols-[minmax(0,1fr)_minmax(300px,400px)]">
        <SideBySide id={take.id} clip={clip} render={preview} windows={windows.data}>
          <Making
            render={preview}
            onRender={render}
            onCancel={() => preview && forget.mutate(preview.id)}
          />
        </SideBySide>
        <div className="space-y-3">
          {details && (
            <Controls
              remedy={remedy}
              wanted={wanted}
              details={details}
              brief={brief}
              target={judgement.target}
              onChange={(part) => setWanted({ ...wanted, ...part })}
            />
          )}
          {done && <Worked worked={done.worked} onMark={worked} />}
          <Travel id={take.id} wanted={wanted} remedy={remedy} gone={whereItWent(detail)} />
        </div>
      </div>
    </section>
  );
}

const PLAIN = { corner_hz: null, rate: null, drift: null, glide: null };

/** The preview's own figure, beside what was predicted. */
function Measured({ render }: { render: Render }) {
  const { recipe } = render;
  const part = format.span(recipe.start_s, recipe.end_s);
  if (render.gust === null || recipe.gust === null) {
    return (
      <p className="text-note text-stone">
        From {part}. It could not be measured again: {render.unmeasured ?? "no prediction"}.
      </p>
    );
  }
  const found = agreement(recipe.gust, render.gust);
  const apart = edgesApart(render.gust, render.edge_gust);
  return (
    <p className="text-note text-stone" data-testid="measured-again">
      From {part}. Predicted {format.gust(recipe.gust)}, measured again{" "}
      <b className={`font-semibold ${found.agrees ? "text-ink" : "text-ember-deep"}`}>
        {format.gust(render.gust)}
      </b>
      , {found.words}.{recipe.subject_gust !== null && <HeldSubject render={render} />}
      {apart && <b className="block font-semibold text-ember-deep">{apart}</b>}
    </p>
  );
}

/** What the subject that is held reads, beside what is behind it. */
function HeldSubject({ render }: { render: Render }) {
  const { recipe, subject_gust } = render;
  if (subject_gust === null) return <> The subject was not found again in it.</>;
  return (
    <>
      {" "}
      The subject itself: predicted {format.gust(recipe.subject_gust)}, measured again{" "}
      <b className="font-semibold text-ink">{format.gust(subject_gust)}</b>.
    </>
  );
}

type MakingProps = { render: Render | undefined; onRender: () => void; onCancel: () => void };

function Making({ render, onRender, onCancel }: MakingProps) {
  if (render?.state === "queued" || render?.state === "running") {
    return (
      <div className="rounded w-full max-w-[300px] bg-paper p-3">
        <Progress value={render.progress ?? 0} label="Rendering the preview" />
        {render.fault_what && (
          <p role="status" className="text-note">
            It waits because {render.fault_what}: {render.fault_next}.
          </p>
        )}
        <Button look="bare" onClick={onCancel}>
          Stop
        </Button>
      </div>
    );
  }
  return (
    <div className="rounded max-w-[300px] bg-paper p-3 text-note">
      {render?.state === "failed" && (
        <p className="mb-2" role="alert">
          <b className="font-semibold text-ember-deep">Not rendered:</b> {render.fault_what};{" "}
          {render.fault_next}.
        </p>
      )}
      <Button look="main" onClick={onRender}>
        Render this <Key>R</Key>
      </Button>
    </div>
  );
}

function PlayButton() {
  const playhead = usePlayhead();
  const playing = usePlaying();
  return (
    <Button look="bare" onClick={() => playhead.toggle()}>
      {playing ? "Pause" : "Play"} <Key>Space</Key>
    </Button>
  );
}

type WorkedProps = { worked: boolean | null; onMark: (smooth: boolean) => void };

function Worked({ worked, onMark }: WorkedProps) {
  return (
    <div className="flex flex-wrap gap-2">
      <Button aria-pressed={worked === true} onClick={() => onMark(true)}>
        {worked === true ? "✓ It works" : "It works"} <Key>Y</Key>
      </Button>
      <Button aria-pressed={worked === false} onClick={() => onMark(false)}>
        {worked === false ? "✓ It does not" : "It does not"} <Key>N</Key>
      </Button>
    </div>
  );
}
