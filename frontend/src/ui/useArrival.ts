import { useEffect, useRef } from "react";

const LONGEST_MS = 5000;

/** On every page but the first, focus goes to the page's heading as soon as it is there: it is read
 * out, and Tab goes on from it. A page that puts focus elsewhere keeps it there. */
export function useArrival(pathname: string) {
  const first = useRef(true);
  useEffect(() => {
    if (first.current) {
      first.current = false;
      return;
    }
    const main = document.getElementById("main");
    if (!main || arrive(main)) return;
    const seen = new MutationObserver(() => {
      if (arrive(main)) seen.disconnect();
    });
    seen.observe(main, { childList: true, subtree: true });
    const later = setTimeout(() => seen.disconnect(), LONGEST_MS);
    return () => {
      seen.disconnect();
      clearTimeout(later);
    };
  }, [pathname]);
}

/** Whether the page's heading is there; it has the focus then, unless something in the page has. */
function arrive(main: HTMLElement): boolean {
  const heading = main.querySelector("h1");
  if (!heading) return false;
  const focused = document.activeElement;
  if (!focused || focused === main || !main.contains(focused)) {
    heading.tabIndex = -1;
    heading.focus({ preventScroll: true });
  }
  return true;
}
