import { useEffect, useRef, useState, type RefObject } from "react";

/** How long the end of a move is shown before it begins again, s. */
const REST_S = 0.9;

const still = () => window.matchMedia("(prefers-reduced-motion: reduce)").matches;

/** Between two drawings, ms: a body moves slowly enough for thirty a second. */
const LEAST_MS = 30;

/** Where a move is, 0 to 1, playing by itself unless reduced motion is asked for, while it is on
 * screen. figureRef: what draws it. */
export function usePlaying(
  figureRef: RefObject<Element | null>,
  { seconds, cycle, moves }: { seconds: number; cycle: boolean; moves: boolean },
) {
  const [share, setShare] = useState(moves && !still() ? 0 : 1);
  const [playing, setPlaying] = useState(() => moves && !still());
  const seen = useSeen(figureRef);
  const from = useRef<number | null>(null);
  const now = useRef(share);
  useEffect(() => {
    now.current = share;
  });
  useEffect(() => {
    if (!playing || !moves || !seen) return;
    const rest = cycle ? 0 : REST_S;
    let id = 0;
    let drawn = 0;
    const tick = (at: number) => {
      id = requestAnimationFrame(tick);
      if (at - drawn < LEAST_MS) return;
      drawn = at;
      from.current ??= at - 1000 * now.current * seconds;
      const gone = ((at - from.current) / 1000) % (seconds + rest);
      setShare(Math.min(1, gone / seconds));
    };
    id = requestAnimationFrame(tick);
    return () => {
      cancelAnimationFrame(id);
      from.current = null;
    };
  }, [playing, moves, seen, seconds, cycle]);
  return {
    share,
    playing,
    toggle: () => setPlaying((on) => !on),
    seek: (to: number) => {
      setPlaying(false);
      setShare(to);
    },
  };
}

/** Whether any of an element is on screen. */
function useSeen(ref: RefObject<Element | null>): boolean {
  const [seen, setSeen] = useState(false);
  useEffect(() => {
    if (!ref.current) return;
    const looking = new IntersectionObserver((found) =>
      setSeen(found.at(-1)?.isIntersecting ?? false),
    );
    looking.observe(ref.current);
    return () => looking.disconnect();
  }, [ref]);
  return seen;
}
