import { useRef, useState } from "react";
import { useDrag } from "../../ui/useDrag";
import type { Proposals, SessionDetail } from "../../api/practice";
import { useWidth } from "../../ui/useWidth";
import { dropOf, layOut, type Film } from "./filingLayout";

const HEIGHT = 92;
const TAKES_Y = 16;
const FILMS_Y = 68;
const DASHES = { slate: undefined, clock: "6 3", order: "1 4" };
const TOUCH_PX = 26;

type Props = {
  proposals: Proposals;
  detail: SessionDetail;
  /** File a film under a take; null takes it out of the one it is in. */
  onFile: (film: number, position: number | null) => void;
};
type Drag = { film: Film; x: number; y: number };

/**
 * Planned takes above, loose films below, each joined to the take it could be. A film is dragged
 * to the take that it belongs to, or down to be loose; the lists beside do the same by keyboard.
 */
export function FilingDrawing({ proposals, detail, onFile }: Props) {
  const [box, width] = useWidth<HTMLDivElement>();
  const [drag, setDrag] = useState<Drag | null>(null);
  const { takes, films } = layOut(proposals, detail.session.takes, width);
  const drop = drag && dropOf(drag, takes, (TAKES_Y + FILMS_Y) / 2);
  /** The film that the pointer has gone down on; a drag of the drawing begins with it. */
  const pressed = useRef<Film | null>(null);
  const handle = (film: Film) => ({
    onPointerDown: () => (pressed.current = film),
    className: "cursor-grab touch-none",
  });
  const dragging = useDrag<Film>({
    onStart: (at, event) => {
      const film = pressed.current;
      pressed.current = null;
      if (!film) return null;
      event.preventDefault();
      setDrag({ film, ...at });
      return film;
    },
    onMove: (at, film) => setDrag({ film, ...at }),
    onEnd: () => {
      if (drag && drop !== undefined && drop !== drag.film.filed) {
        onFile(drag.film.id, drop ?? null);
      }
      setDrag(null);
    },
    onCancel: () => setDrag(null),
  });
  return (
    <div ref={box}>
      <p className="text-small text-stone">{drag ? saidOf(drag, drop) : LEGEND}</p>
      {width > 0 && (
        <svg
          width={width}
          height={HEIGHT}
          role="img"
          aria-label={`${proposals.matches.length} of ${films.length} films joined to planned takes`}
          {...dragging}
        >
          {proposals.matches.map((one) => {
            const film = films.find((two) => two.id === one.film_id);
            return (
              <line
                key={one.film_id}
                x1={takes[one.position]?.x}
                x2={film?.x}
                y1={TAKES_Y + 6}
                y2={FILMS_Y - 6}
                stroke="var(--ridge-4)"
                strokeWidth="1.6"
                strokeDasharray={DASHES[one.how]}
              />
            );
          })}
          {takes.map((one) => (
            <g
              key={one.position}
              data-testid={`slot-${one.position}`}
              {...(one.film ? handle(one.film) : {})}
            >
              <rect
                x={one.x - TOUCH_PX / 2}
                y={TAKES_Y - TOUCH_PX / 2}
                width={TOUCH_PX}
                height={TOUCH_PX}
                fill="transparent"
              />
              <rect
                x={one.x - 5}
                y={TAKES_Y - 6}
                width="10"
                height="12"
                fill={one.film ? "var(--lichen-deep)" : one.filmed ? "var(--ridge-3)" : "none"}
                stroke={drag && drop === one.position ? "var(--ink)" : "var(--ridge-4)"}
                strokeWidth={drag && drop === one.position ? 3 : 1}
              />
            </g>
          ))}
          {films.map((one) => (
            <g key={one.id} data-testid={`film-${one.id}`} {...handle(one)}>
              <rect
                x={one.x - TOUCH_PX / 2}
                y={FILMS_Y - TOUCH_PX / 2}
                width={TOUCH_PX}
                height={TOUCH_PX}
                fill="transparent"
              />
              <rect x={one.x - 6} y={FILMS_Y - 6} width="12" height="12" fill="var(--ridge-5)" />
            </g>
          ))}
          {drag && (
            <rect
              x={drag.x - 6}
              y={drag.y - 6}
              width="12"
              height="12"
              fill="var(--ink)"
              pointerEvents="none"
            />
          )}
          <text className="text-fine" x="10" y={HEIGHT - 3} fill="var(--stone)">
            loose films, in the order of their clocks
          </text>
        </svg>
      )}
    </div>
  );
}

const LEGEND =
  "Planned takes above, films below: drag a film to its take. Lines: whole by slate, dashed by clock, dotted by order.";

function saidOf(drag: Drag, drop: number | null | undefined): string {
  if (drop === undefined)
    return `${drag.film.name}: let go over a take, or below to leave it loose`;
  return drop === null ? `${drag.film.name}: loose` : `${drag.film.name} → take ${drop + 1}`;
}
