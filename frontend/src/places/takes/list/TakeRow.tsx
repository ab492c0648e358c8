import { Trash2 } from "lucide-react";
import { Link } from "react-router";
import type { TakeLine } from "../../../api/client";
import { useTakeAct } from "../../../api/takes";
import { SmallRidge } from "../../../charts/SmallRidge";
import * as format from "../../../formats";
import { Button } from "../../../ui/Button";
import { CHOICE_WORDS } from "../compare/words";
import { Progress } from "../../../ui/Progress";

type Props = {
  take: TakeLine;
  chosen: boolean;
  picked: boolean;
  /** There is less room, because the chosen take plays beside the list. */
  tight: boolean;
  onChoose: (take: TakeLine) => void;
  onPick: (take: TakeLine, stretch: boolean) => void;
  onDelete: (take: TakeLine) => void;
};

const WIDE = "lg:grid-cols-[20px_104px_minmax(0,1fr)_240px_64px_240px_104px_28px]";
const TIGHT = "lg:grid-cols-[20px_84px_minmax(0,1fr)_64px_200px]";

/** One take in the list. */
export function TakeRow({ take, chosen, picked, tight, onChoose, onPick, onDelete }: Props) {
  const taken = format.when(take.recorded_at ?? take.imported_at);
  return (
    <div
      className={`group relative grid h-[76px] grid-cols-[20px_84px_minmax(0,1fr)_auto] items-center gap-x-3 border-b border-line px-4 sm:gap-x-4 sm:px-8 ${tight ? TIGHT : WIDE} ${chosen || picked ? "bg-paper" : "hover:bg-paper"}`}
      data-testid={`take-${take.id}`}
    >
      {chosen && <i className="absolute inset-y-0 left-0 w-1 bg-lamp" />}
      <label className="relative z-(--layer-raised) -m-3 flex items-center justify-center self-stretch p-3">
        <input
          type="checkbox"
          checked={picked}
          aria-label={`Pick ${take.name}`}
          onChange={() => undefined}
          onClick={(event) => onPick(take, event.shiftKey)}
          className="size-4 accent-ink"
        />
      </label>
      <div>
        <Still take={take} />
        <div className="mt-0.5 lg:hidden">
          <SmallRidge encoded={take.ridge} target={take.target} width={84} height={20} />
        </div>
      </div>
      <div className="min-w-0">
        <Link
          to={`/takes/${take.id}`}
          onClick={(event) => {
            if (tight && !event.metaKey && !event.ctrlKey) event.preventDefault();
            onChoose(take);
          }}
          className="line-clamp-1 leading-tight font-semibold lg:line-clamp-2 after:absolute after:inset-0"
        >
          {take.name}
        </Link>
        <p className="truncate text-small text-stone">
          {format.seconds(take.duration_s)} · {take.fps === null ? "–" : format.rate(take.fps)} ·
          for {take.feel}
        </p>
        <div className="lg:hidden">
          <Verdict take={take} />
        </div>
      </div>
      {!tight && (
        <div className="hidden lg:block">
          <SmallRidge encoded={take.ridge} target={take.target} width={240} height={44} />
        </div>
      )}
      <Gust take={take} />
      <div className="hidden lg:block">
        <Verdict take={take} />
      </div>
      {!tight && (
        <>
          <p className="hidden text-small text-stone lg:block">
            {taken.day}
            <br />
            {taken.time}
          </p>
          <Button
            look="bare"
            aria-label={`Delete ${take.name}`}
            onClick={() => onDelete(take)}
            className="relative z-(--layer-raised) hidden! p-1! opacity-0 group-hover:opacity-100 focus-visible:opacity-100 lg:inline-flex!"
          >
            <Trash2 size={15} aria-hidden />
          </Button>
        </>
      )}
    </div>
  );
}

function Still({ take }: { take: TakeLine }) {
  const ready = take.state === "done" && take.pictured;
  return (
    <div className="rounded h-[42px] overflow-hidden bg-line lg:h-auto lg:aspect-video">
      {ready && (
        <img
          src={`/api/takes/${take.id}/still`}
          alt=""
          loading="lazy"
          className="size-full object-cover"
        />
      )}
    </div>
  );
}

function Gust({ take }: { take: TakeLine }) {
  const over = take.gust !== null && take.gust > take.target;
  return (
    <p className="text-right leading-none">
      <span className={`figure-narrow text-figure ${over ? "text-ember-deep" : ""}`}>
        <span className="sr-only">Gust </span>
        {format.gust(take.gust)}
      </span>
      {take.gust !== null && (
        <span className="block pt-0.5 text-fine text-stone">of {format.gust(take.target)}</span>
      )}
    </p>
  );
}

function Verdict({ take }: { take: TakeLine }) {
  const act = useTakeAct();
  if (take.state === "queued" || take.state === "running") {
    return (
      <div className="relative z-(--layer-raised) flex items-center gap-3">
        <div className="flex-1">
          <p className="text-small text-stone">
            {take.state === "queued" ? "Waiting" : "Measuring"}
            {take.fault && `: ${take.fault.what}`}
          </p>
          <Progress
            value={take.state === "queued" ? 0 : take.progress}
            label={`Measuring ${take.name}`}
          />
        </div>
        <Button
          look="bare"
          className="px-0!"
          aria-label={`Cancel measuring ${take.name}`}
          onClick={() => act.mutate({ act: "cancel", id: take.id })}
        >
          Cancel
        </Button>
      </div>
    );
  }
  if (take.fault) {
    return (
      <p className="line-clamp-2 text-small lg:line-clamp-3 leading-tight">
        <b className="font-semibold text-ember-deep">Not measured.</b> {take.fault.what};{" "}
        {take.fault.next_step}.
      </p>
    );
  }
  if (take.remedy === null) {
    const words = take.state === "done" ? "Whose motion is it?" : "Measuring was cancelled";
    return <p className="text-small text-stone">{words}</p>;
  }
  const passes = take.remedy !== "retake";
  return (
    <p className="inline-flex items-center gap-2 text-note font-semibold lg:text-body">
      <i className={`h-4 w-1.5 ${passes ? "bg-lichen-deep" : "bg-ember"}`} />
      {format.REMEDY_WORDS[take.remedy]}
      {take.choice && (
        <span className="label-wide border-l border-line pl-2">{CHOICE_WORDS[take.choice]}</span>
      )}
    </p>
  );
}
