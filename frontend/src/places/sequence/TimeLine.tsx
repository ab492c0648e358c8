import type { Joined, Piece, PieceItem } from "../../api/joined";
import { useWidth } from "../../ui/useWidth";
import { PieceTile } from "./PieceTile";
import { beatFrames } from "./tempo";

const LEAST_WIDTH = 64;

export type Chosen = { kind: "piece" | "cut"; at: number } | null;

type Props = {
  joined: Joined;
  chosen: Chosen;
  onChoose: (chosen: Chosen) => void;
  onTrim: (at: number, piece: Piece) => void;
  /** Where the film is that is seen, s; null where none is. */
  now_s: number | null;
};

/** Pieces one after the other, as long as they are shown: each as picture and ridge, the target
 * across all, and how each cut joins. */
export function TimeLine({ joined, chosen, onChoose, onTrim, now_s }: Props) {
  const [box, width] = useWidth<HTMLDivElement>();
  const { pieces, cuts, rate_hz, frames, target } = joined;
  const scale = pieces.length === 0 ? 0 : Math.max(width / frames, leastScale(pieces));
  return (
    <div ref={box} className="overflow-x-auto">
      <div className="relative" style={{ width: scale * frames }}>
        <ol aria-label="Pieces" className="flex">
          {width > 0 &&
            pieces.map((item, at) => (
              <PieceTile
                key={at}
                item={item}
                at={at}
                width={scale * item.frames}
                target={target}
                chosen={chosen?.kind === "piece" && chosen.at === at}
                cut={cuts[at - 1]}
                cutChosen={chosen?.kind === "cut" && chosen.at === at - 1}
                before={pieces[at - 1]}
                ratio={joined.ratio}
                asPlanned={joined.shape === null}
                onChoose={() => onChoose({ kind: "piece", at })}
                onCut={() => onChoose({ kind: "cut", at: at - 1 })}
                onTrim={(piece) => onTrim(at, piece)}
              />
            ))}
        </ol>
        {joined.beats_per_min !== null && width > 0 && (
          <Beats beats_per_min={joined.beats_per_min} joined={joined} scale={scale} />
        )}
        {now_s !== null && (
          <i
            data-testid="now"
            className="pointer-events-none absolute top-0 bottom-0 z-(--layer-bar) w-0.5 bg-lamp"
            style={{ left: scale * now_s * rate_hz }}
          />
        )}
      </div>
    </div>
  );
}

/** Px a frame at which the shortest piece can still be seen. */
const leastScale = (pieces: readonly PieceItem[]) =>
  LEAST_WIDTH / Math.min(...pieces.map((one) => one.frames));

type BeatsProps = { beats_per_min: number; joined: Joined; scale: number };

/** Where the beats fall, along the foot of the line. */
function Beats({ beats_per_min, joined, scale }: BeatsProps) {
  return (
    <svg aria-hidden="true" className="block h-2 w-full" data-testid="beats">
      {beatFrames(beats_per_min, joined.rate_hz, joined.frames).map((frame) => (
        <line
          key={frame}
          x1={scale * frame}
          x2={scale * frame}
          y2="8"
          stroke="var(--stone)"
          strokeWidth="1.5"
        />
      ))}
    </svg>
  );
}
