import { useEffect, useMemo, useRef, useState } from "react";
import type { ClipFacts, Judgement, PathColumns, TakeDetail } from "../../../api/client";
import { useSubject } from "../../../api/subject";
import { gustAt, nearest } from "../../../charts/ridge";
import * as format from "../../../formats";
import { Key } from "../../../keys/Key";
import { useKeys } from "../../../keys/useKeys";
import { BackgroundBar, BackgroundCells, useBackgroundPicker } from "./BackgroundPicker";
import { PointsKey, PointsLayer } from "./PointsLayer";
import { SubjectLayer, type Marking } from "./SubjectMark";
import { useLoop, usePlayhead, usePlaying, useTime } from "./playhead";

const TRAIL_S = 1;

type Props = {
  detail: TakeDetail;
  clip: ClipFacts;
  judgement: Judgement;
  path: PathColumns | undefined;
  /** The shooter is saying where the background is. */
  naming: boolean;
  onNaming: (naming: boolean) => void;
};

/** The picture, with the last second of the camera's path drawn where it points. */
export function Player({ detail, clip, judgement, path, naming, onNaming }: Props) {
  const { id } = detail.take;
  const video = useRef<HTMLVideoElement>(null);
  const playhead = usePlayhead();
  const [marking, setMarking] = useState<Marking>(null);
  const marked = (useSubject(id).data?.t_s.length ?? 0) > 0;
  const [heard, setHeard] = useState(false);
  const picker = useBackgroundPicker(detail, () => onNaming(false));
  const [pointed, setPointed] = useState(false);
  useKeys({ "What was followed, over the picture": { o: () => setPointed((now) => !now) } });
  useKeys(clip.has_sound ? { "Hear it, or not": { l: () => setHeard((now) => !now) } } : {});
  useEffect(() => {
    playhead.attach(video.current);
    return () => playhead.attach(null);
  }, [playhead, id]);
  const upright = clip.height > clip.width;
  return (
    <div>
      <div
        className="rounded relative mx-auto overflow-hidden bg-ridge-5"
        style={{
          aspectRatio: `${clip.width} / ${clip.height}`,
          maxHeight: upright ? 420 : undefined,
        }}
      >
        {/* Sound of a practice take, off until it is asked for: there is nothing to caption. */}
        <video
          key={id}
          ref={video}
          src={`/api/takes/${id}/film`}
          muted={!heard}
          playsInline
          preload="auto"
          tabIndex={-1}
          aria-label="The take"
          className="block h-full w-full"
          onClick={() => playhead.toggle()}
          onPlay={playhead.changed}
          onPause={playhead.changed}
        >
          <track kind="captions" />
        </video>
        {path && <Trail path={path} clip={clip} moves={judgement.move?.move != null} />}
        {pointed && !naming && <PointsLayer id={id} clip={clip} />}
        <SubjectLayer id={id} clip={clip} marking={marking} onMarking={setMarking} />
        {naming && <BackgroundCells clip={clip} picker={picker} />}
      </div>
      {naming && <BackgroundBar picker={picker} />}
      {pointed && !naming && <PointsKey id={id} onName={() => onNaming(true)} />}
      <Readout
        judgement={judgement}
        fps={clip.fps}
        marking={marking}
        onMark={() => setMarking(marking ? null : "subject")}
        onSecond={marked && !marking ? () => setMarking("second") : null}
        heard={clip.has_sound ? heard : null}
        onHear={() => setHeard(!heard)}
        pointed={pointed}
        onPoint={() => setPointed(!pointed)}
      />
    </div>
  );
}

type TrailProps = { path: PathColumns; clip: ClipFacts; moves: boolean };

function Trail({ path, clip, moves }: TrailProps) {
  const t = useTime();
  const long = Math.max(clip.width, clip.height);
  const [middleX, middleY] = [clip.width / 2, clip.height / 2];
  const points = useMemo(() => {
    const now = nearest(path.t_s, t);
    const nowPan = path.pan_pct[now];
    const nowTilt = path.tilt_pct[now];
    if (nowPan == null || nowTilt == null) return "";
    const found: string[] = [];
    for (let i = now; i >= 0 && (path.t_s[i] ?? 0) > t - TRAIL_S; i--) {
      const [pan, tilt] = [path.pan_pct[i], path.tilt_pct[i]];
      if (pan == null || tilt == null) break;
      const px = middleX + ((pan - nowPan) * long) / 100;
      const py = middleY - ((tilt - nowTilt) * long) / 100;
      found.push(`${px.toFixed(1)},${py.toFixed(1)}`);
    }
    return found.join(" ");
  }, [path, t, long, middleX, middleY]);
  const meant = useMemo(() => {
    const now = nearest(path.t_s, t);
    const [nowPan, nowTilt] = [path.pan_pct[now], path.tilt_pct[now]];
    if (!moves || nowPan == null || nowTilt == null) return "";
    return path.meant_s
      .map((_, i) => {
        const [pan, tilt] = [path.meant_pan_pct[i] ?? 0, path.meant_tilt_pct[i] ?? 0];
        const px = middleX + ((pan - nowPan) * long) / 100;
        const py = middleY - ((tilt - nowTilt) * long) / 100;
        return `${px.toFixed(1)},${py.toFixed(1)}`;
      })
      .join(" ");
  }, [path, t, long, middleX, middleY, moves]);
  if (!points) return null;
  const width = long / 300;
  return (
    <svg
      viewBox={`0 0 ${clip.width} ${clip.height}`}
      className="pointer-events-none absolute inset-0 h-full w-full"
      aria-hidden="true"
    >
      {meant && (
        <polyline
          points={meant}
          fill="none"
          stroke="#fff"
          strokeOpacity="0.75"
          strokeWidth={width * 0.7}
          strokeDasharray={`${width * 3} ${width * 2}`}
        />
      )}
      <polyline
        points={points}
        fill="none"
        stroke="var(--lamp-ink)"
        strokeOpacity="0.5"
        strokeWidth={width * 2}
        strokeLinejoin="round"
      />
      <polyline
        points={points}
        fill="none"
        stroke="var(--lamp)"
        strokeWidth={width}
        strokeLinejoin="round"
      />
      <circle
        cx={middleX}
        cy={middleY}
        r={width * 2}
        fill="var(--lamp)"
        stroke="var(--lamp-ink)"
        strokeWidth={width / 2}
      />
    </svg>
  );
}

type ReadoutProps = {
  judgement: Judgement;
  fps: number;
  marking: Marking;
  onMark: () => void;
  /** Mark another point; null where there is no first. */
  onSecond: (() => void) | null;
  /** Whether its sound is on; null where it has none. */
  heard: boolean | null;
  onHear: () => void;
  pointed: boolean;
  onPoint: () => void;
};

function Readout(props: ReadoutProps) {
  const { judgement, fps, marking, onMark, onSecond, heard, onHear, pointed, onPoint } = props;
  const t = useTime();
  const playing = usePlaying();
  const loop = useLoop();
  const playhead = usePlayhead();
  const lee = judgement.lee;
  return (
    <div className="flex flex-wrap items-center gap-x-4 gap-y-1 pt-1.5 text-small text-stone">
      <span>
        <b className="font-semibold text-ink">{format.exactSeconds(t)}</b>
      </span>
      <span>
        gust <b className="font-semibold text-ink">{format.gust(gustAt(judgement.trace, t))}</b>
      </span>
      <span>
        trust <b className="font-semibold text-ink">{format.share(judgement.trust)}</b>
      </span>
      <span className="ml-auto flex gap-3">
        <Act keys="Space" words={playing ? "pause" : "play"} onClick={() => playhead.toggle()} />
        <Act keys="M" words={marking ? "click it, or M" : "subject"} onClick={onMark} />
        {onSecond && <Act keys="X" words="second point" onClick={onSecond} />}
        {heard !== null && <Act keys="L" words={heard ? "mute" : "listen"} onClick={onHear} />}
        <Act keys="O" words={pointed ? "hide points" : "points"} onClick={onPoint} />
        <Act keys="→" words="frame" onClick={() => playhead.step(1, fps)} />
        {lee && (
          <Act
            keys="C"
            words={loop ? "end loop" : "loop lee"}
            onClick={() => playhead.setLoop(loop ? null : { from: lee.start_s, to: lee.end_s })}
          />
        )}
      </span>
    </div>
  );
}

function Act({ keys, words, onClick }: { keys: string; words: string; onClick: () => void }) {
  return (
    <button
      type="button"
      onClick={onClick}
      className="inline-flex items-center gap-1.5 hover:text-ink"
    >
      <Key>{keys}</Key> {words}
    </button>
  );
}
