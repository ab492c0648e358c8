import { useEffect, useState, useSyncExternalStore } from "react";
import { takeResult, useSessionChange } from "../../api/practice";
import { sayOrigin } from "../../api/examples";
import { useChanged } from "../../api/keys";
import { sendFilm } from "../../api/uploads";
import { FEED_FAULTS, openFeed, type Feed } from "../../camera/feed";
import { record } from "../../camera/recording";
import { FilmedTakes, type Told } from "./filmedTakes";
import type { CameraChoice } from "./choices";

export type Filming = {
  filmed: FilmedTakes;
  told: ReadonlyMap<number, Told>;
  feed: Feed | null;
  /** Why there is no camera, where one was asked for. */
  fault: string;
};

/** The camera that films a session's takes, where one was chosen, and what came of each. */
export function useFilmedTakes(sessionId: number, camera: CameraChoice): Filming {
  const { mutate } = useSessionChange(sessionId);
  const changed = useChanged();
  const [filmed] = useState(
    () =>
      new FilmedTakes({
        record: (stream, onFilm) =>
          record(stream, camera === "simulated" ? "Simulated camera" : "Camera", onFilm),
        send: async (film) => {
          const never = new AbortController().signal;
          const { take } = await sendFilm(film, () => undefined, never);
          if (camera === "simulated") await sayOrigin(take.id, "simulated");
          changed("films");
          return take.id;
        },
        file: (position, take_id) => mutate({ act: "note", position, note: { take_id } }),
        result: (position, signal) => takeResult(sessionId, position, signal),
        pause: (ms) => new Promise((resolve) => setTimeout(resolve, ms)),
      }),
  );
  const told = useSyncExternalStore(filmed.subscribe, filmed.snapshot);
  const [feed, setFeed] = useState<Feed | null>(null);
  const [fault, setFault] = useState("");
  useEffect(() => {
    if (camera === "none" || camera === "folder") return;
    let gone = false;
    let opened: Feed | null = null;
    openFeed(camera)
      .then((found) => {
        opened = found;
        if (gone) return found.close();
        filmed.use(found);
        setFeed(found);
      })
      .catch(() => setFault(FEED_FAULTS[camera]));
    return () => {
      gone = true;
      filmed.use(null);
      opened?.close();
    };
  }, [camera, filmed]);
  useEffect(() => () => filmed.close(), [filmed]);
  return { filmed, told, feed, fault };
}
