import { useEffect, useRef } from "react";
import * as format from "../../../formats";
import type { Live } from "../../../live/useLive";
import { LiveRidge } from "./LiveRidge";

/** From there on the figure is too late to steer by. */
const LATE_MS = 600;

const REASONS: Record<string, string> = {
  short: "A moment: looking what moves",
  rivals: "Two things move: show more of what stands still",
  alone: "What moves may not be the camera: show more of what stands still",
  noise: "Too still, or too poor a picture, to tell",
  slow: "The sensor gives too few samples to tell",
};

/** One figure, what it has been like, and how long it has been calm. */
export function LiveFace({ live, target }: { live: Live; target: number }) {
  const { answer } = live;
  const gust = answer?.gust ?? null;
  const over = gust !== null && gust > target;
  const best = answer?.best_s ?? 0;
  return (
    <section
      aria-label="Gust of the last second"
      className={`relative flex flex-1 flex-wrap content-center items-center justify-center gap-x-8 gap-y-1 px-4 py-2 ${answer && !over && gust !== null ? "bg-lichen" : ""}`}
      data-testid="live"
      data-lag={Math.round(live.lag_ms)}
      data-whole={answer?.whole ?? ""}
      data-t={answer?.t_s ?? 0}
    >
      <LivePicture stream={live.stream} />
      <p
        className="figure-huge basis-full text-center text-far-count leading-none [@media(max-height:480px)]:basis-auto"
        data-testid="live-gust"
      >
        {gust === null ? "–" : format.gust(gust)}
      </p>
      <div className="text-center">
        <p className="text-far-heading font-semibold">
          {gust === null
            ? waitingWords(live)
            : `${over ? "" : "calm, "}${format.againstTarget(gust, target)?.words}`}
        </p>
        {answer && (
          <p className="text-far-note" role="timer">
            calm for <b className="tabular-nums">{format.seconds(answer.calm_s)}</b>, best{" "}
            <b className="tabular-nums">{format.seconds(best)}</b>
            {live.record_s > 0 &&
              (best > live.record_s
                ? `, beats ${format.seconds(live.record_s)}`
                : `, to beat ${format.seconds(live.record_s)}`)}
          </p>
        )}
      </div>
      <div className="min-w-0 basis-full">
        <LiveRidge history={live.history} target={target} />
      </div>
      {live.history.holds.length > 0 && (
        <p className="basis-full text-center text-note text-stone">
          Held {live.history.holds.slice(-6).map(format.seconds).join(", ")}
        </p>
      )}
      <p role="status" className="basis-full text-center text-note text-ember-deep">
        {live.thin > 1 &&
          `Measuring cannot keep up: every ${ORDINALS[live.thin]} sample is used, and fast shake may be missed. `}
        {live.state === "runs" && live.lag_ms > LATE_MS && "The figure comes late."}
      </p>
      <span className="sr-only" aria-live="polite">
        {live.state === "runs" && gust !== null && (over ? "Over the target" : "Calm")}
      </span>
    </section>
  );
}

const ORDINALS = ["", "", "second", "third", "fourth"];

function waitingWords({ state, answer }: Live): string {
  if (state === "begins") return "Opening…";
  if (state === "off" || state === "ends") return answer ? "Stopped" : "Hold as you would film";
  return REASONS[answer?.reason ?? "short"] ?? `It cannot be told: ${answer?.reason}`;
}

/** What the camera sees, small. */
function LivePicture({ stream }: { stream: MediaStream | null }) {
  const video = useRef<HTMLVideoElement>(null);
  useEffect(() => {
    if (video.current) video.current.srcObject = stream;
  }, [stream]);
  if (!stream) return null;
  return (
    <video
      ref={video}
      autoPlay
      muted
      playsInline
      aria-label="What the camera sees"
      className="absolute top-3 right-3 w-[22vw] max-w-[200px] border-4 border-paper"
    />
  );
}
