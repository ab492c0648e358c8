import { useEffect, useRef, useState } from "react";

/** How long the end of a move is shown before it begins again, s. */
const REST_S = 0.9;

const still = () => window.matchMedia("(prefers-reduced-motion: reduce)").matches;

/** Where a move is, 0 to 1, playing by itself unless reduced motion is asked for. */
export function usePlaying(seconds: number, cycle: boolean, moves: boolean) {
  const [share, setShare] = useState(moves && !still() ? 0 : 1);
  const [playing, setPlaying] = useState(() => moves && !still());
  const from = useRef<number | null>(null);
  const now = useRef(share);
  useEffect(() => {
    now.current = share;
  });
  useEffect(() => {
    if (!playing || !moves) return;
    const rest = cycle ? 0 : REST_S;
    let id = 0;
    const tick = (at: number) => {
      from.current ??= at - 1000 * now.current * seconds;
      const gone = ((at - from.current) / 1000) % (seconds + rest);
      setShare(Math.min(1, gone / seconds));
      id = requestAnimationFrame(tick);
    };
    id = requestAnimationFrame(tick);
    return () => {
      cancelAnimationFrame(id);
      from.current = null;
    };
  }, [playing, moves, seconds, cycle]);
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
