import { useSyncExternalStore } from "react";

/** As the grid of the list: below it nothing plays beside it, and a link is a link. */
const ROOM = "(min-width: 64rem)";

/** Whether the window is wide enough for a take to play beside the list. */
export const useHasRoom = () =>
  useSyncExternalStore(
    (changed) => {
      const media = matchMedia(ROOM);
      media.addEventListener("change", changed);
      return () => media.removeEventListener("change", changed);
    },
    () => matchMedia(ROOM).matches,
  );
