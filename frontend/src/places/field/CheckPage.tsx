import { useMutation } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import { Link } from "react-router";
import { ExplainedError } from "../../api/client";
import { useChanged } from "../../api/keys";
import { useChoose } from "../../api/decisions";
import { useTake } from "../../api/takes";
import { sendFilm } from "../../api/uploads";
import * as format from "../../formats";
import { useKeys } from "../../keys/useKeys";
import { FaultView } from "../../ui/FaultView";
import { Progress } from "../../ui/Progress";
import { BigButton } from "../../ui/BigButton";

/** One clip, chosen or filmed now: good enough, or again, and the one thing to change. */
export function CheckPage() {
  const [share, setShare] = useState(0);
  const [name, setName] = useState("");
  const film = useRef<HTMLInputElement>(null);
  const choose = useRef<HTMLInputElement>(null);
  const changed = useChanged();
  const send = useMutation({
    mutationFn: (file: File) => sendFilm(file, setShare, new AbortController().signal),
    onSuccess: () => changed("films"),
  });
  useEffect(() => {
    document.title = "Good enough? · Ridgewind";
  }, []);
  const begin = (files: FileList | null) => {
    const file = files?.[0];
    if (!file) return;
    setShare(0);
    setName(file.name);
    send.mutate(file);
  };
  useKeys({
    "Film a clip": { f: () => film.current?.click() },
    "Choose a clip": { c: () => choose.current?.click() },
  });
  return (
    <div className="flex min-h-[calc(100dvh-var(--trail))] flex-col">
      <header className="border-b border-line px-4 pt-4 pb-3 sm:px-8">
        <h1 className="title text-title leading-tight">Good enough?</h1>
      </header>
      <div className="flex flex-1 flex-col items-center justify-center gap-3 px-4 py-4 text-center">
        {send.error && <FaultView error={send.error} />}
        {send.isIdle && (
          <p className="max-w-[40ch] text-lead text-stone">
            Film a few seconds, or choose a clip: the verdict comes as soon as it is measured.
          </p>
        )}
        {send.isPending && (
          <div className="w-full max-w-[420px]">
            <p className="text-lead">Sending {name}</p>
            <Progress value={share} label="Sent" />
          </div>
        )}
        {send.data && <Verdict key={send.data.take.id} id={send.data.take.id} />}
      </div>
      <footer className="sticky bottom-0 flex flex-wrap justify-center gap-2 border-t border-line bg-paper px-4 py-2">
        <PickFilm input={film} label="A clip filmed now" capture onPick={begin} />
        <PickFilm input={choose} label="A clip that is here" onPick={begin} />
        <BigButton main={send.isIdle} hint="F" onClick={() => film.current?.click()}>
          Film one
        </BigButton>
        <BigButton hint="C" onClick={() => choose.current?.click()}>
          Choose one
        </BigButton>
      </footer>
    </div>
  );
}

type PickProps = {
  input: React.RefObject<HTMLInputElement | null>;
  label: string;
  capture?: boolean;
  onPick: (files: FileList | null) => void;
};

function PickFilm({ input, label, capture = false, onPick }: PickProps) {
  return (
    <input
      ref={input}
      type="file"
      accept="video/*"
      {...(capture && { capture: "environment" as const })}
      aria-label={label}
      className="sr-only"
      onChange={(event) => {
        onPick(event.target.files);
        event.target.value = "";
      }}
    />
  );
}

/** What a take's measurement says, large, with what may be done about it. */
function Verdict({ id }: { id: number }) {
  const found = useTake(id);
  const choose = useChoose();
  const detail = found.data;
  const take = detail?.take;
  const judged = detail?.judgement;
  const say = (choice: "keep" | "retake") => take && choose.mutate({ id, choice });
  useKeys({ Keep: { k: () => say("keep") }, Again: { a: () => say("retake") } });
  if (found.isLoadingError) return <FaultView error={found.error} />;
  if (!take) return null;
  if (take.fault) {
    const error = new ExplainedError({ message: take.fault.what, hint: take.fault.next_step });
    return <FaultView error={error} />;
  }
  if (!judged) {
    return (
      <div className="w-full max-w-[420px]">
        <p className="text-lead">Measuring {take.name}</p>
        <Progress value={take.progress} label="Measured" />
      </div>
    );
  }
  const passes = judged.verdict !== null && judged.verdict !== "retake";
  const first = judged.causes[0];
  return (
    <section aria-label="Verdict" className={`w-full px-2 py-3 ${passes ? "bg-lichen" : ""}`}>
      <p className="title text-far-title leading-none" data-testid="verdict">
        {judged.verdict === null ? "It cannot be told" : passes ? "Good enough" : "Again"}
      </p>
      <p className="figure-huge text-far-title leading-none">{format.gust(judged.gust)}</p>
      <p className="text-lead">{judged.text}</p>
      {!passes && first && (
        <p className="mx-auto mt-2 max-w-[44ch] border-l-4 border-lamp pl-3 text-left text-lead">
          <b>{first.name}.</b> {first.change}
        </p>
      )}
      <div className="mt-4 flex flex-wrap justify-center gap-2">
        <BigButton
          hint="K"
          main={passes}
          aria-pressed={take.choice === "keep"}
          onClick={() => say("keep")}
        >
          {take.choice === "keep" ? "Kept" : "Keep"}
        </BigButton>
        <BigButton
          hint="A"
          main={!passes}
          aria-pressed={take.choice === "retake"}
          onClick={() => say("retake")}
        >
          {take.choice === "retake" ? "To be filmed again" : "Again"}
        </BigButton>
        <Link to={`/takes/${id}`} className="self-center px-3 py-3 text-lead underline">
          All of it
        </Link>
      </div>
    </section>
  );
}
