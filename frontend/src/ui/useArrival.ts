import { useEffect, useRef } from "react";

/** So long a page may take until its heading is the one that stays. */
const LONGEST_MS = 5000;

/** On every page but the first, focus goes to the page's heading as soon as it is there, and to the
 * one that takes its place: it is read out, and Tab goes on from it. A page that puts focus elsewhere
 * keeps it there. */
export function useArrival(pathname: string) {
  const first = useRef(true);
  useEffect(() => {
    if (first.current) {
      first.current = false;
      return;
    }
    const main = document.getElementById("main");
    if (!main) return;
    let arrived = arrive(main, false);
    const seen = new MutationObserver(() => {
      arrived = arrive(main, arrived) || arrived;
    });
    seen.observe(main, { childList: true, subtree: true });
    const later = setTimeout(() => seen.disconnect(), LONGEST_MS);
    return () => {
      seen.disconnect();
      clearTimeout(later);
    };
  }, [pathname]);
}

/** Whether the page's heading is there; it has the focus then, unless something in the page has, or,
 * once it had it, anything at all. */
function arrive(main: HTMLElement, arrived: boolean): boolean {
  const heading = main.querySelector("h1");
  if (!heading) return false;
  const focused = document.activeElement ?? document.body;
  const lost = focused === document.body || focused === main;
  if (lost || (!arrived && !main.contains(focused))) {
    heading.tabIndex = -1;
    heading.focus({ preventScroll: true });
  }
  return true;
}
