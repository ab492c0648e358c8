import { useEffect, useEffectEvent, useState } from "react";
import { useNavigate } from "react-router";
import { useAskFilm, useHandFilm, type HandAsked, type HandFilm } from "../../../api/hand";
import * as format from "../../../formats";
import { Key } from "../../../keys/Key";
import { useKeys } from "../../../keys/useKeys";
import { Button } from "../../../ui/Button";
import { useNotices } from "../../../ui/notices";
import { Progress } from "../../../ui/Progress";
import { useRemembered } from "../../../ui/useRemembered";

type Props = { technique: string; asked: HandAsked };

/** Lets the stand-in camera film a made scene in this hand, to be looked at and measured. */
export function FilmIt({ technique, asked }: Props) {
  const [id, setId] = useRemembered<number | null>("handFilm", null);
  // Whoever comes back to a film that has ended meanwhile is told, and not led away.
  const [waits, setWaits] = useState(false);
  const ask = useAskFilm();
  const { film, isUnderWay, stop } = useHandFilm(id);
  const navigate = useNavigate();
  const { notify, fail } = useNotices();
  const busy = ask.isPending || isUnderWay;
  const go = () => {
    if (busy) return;
    setWaits(true);
    ask.mutate(
      { technique, focal_eq_mm: asked.focal_eq_mm, rate: asked.rate },
      { onError: fail, onSuccess: (begun) => setId(begun.id) },
    );
  };
  const ended = useEffectEvent((one: HandFilm) => {
    setId(null);
    if (one.state === "done" && one.take_id !== null) {
      notify({
        text: `Filmed: “${one.name}”. Predicted gust ${format.gust(one.predicted.gust)}.`,
        hint: "A made scene, simulated; it is measured like any film and teaches nothing of you.",
      });
      if (waits) void navigate(`/takes/${one.take_id}`);
    } else if (one.state === "failed") {
      notify({ text: `“${one.name}” was not filmed.`, hint: one.fault ?? undefined });
    }
  });
  useEffect(() => {
    if (film && !isUnderWay) ended(film);
  }, [film, isUnderWay]);
  useKeys({ "Film it with my hand": { f: go } });
  if (!busy) {
    return (
      <Button onClick={go}>
        Film it with my hand <Key>F</Key>
      </Button>
    );
  }
  return (
    <span className="flex items-center gap-3">
      <span className="w-40">
        <Progress value={film?.progress ?? null} label="Filming in your hand" />
        <span className="text-small text-stone">{film?.fault ?? "Filming in your hand"}</span>
      </span>
      <Button disabled={id === null || stop.isPending} onClick={() => id && stop.mutate(id)}>
        Cancel
      </Button>
    </span>
  );
}
