import { useNavigate } from "react-router";
import { useFilmIt, type HandAsked } from "../../../api/hand";
import * as format from "../../../formats";
import { Key } from "../../../keys/Key";
import { useKeys } from "../../../keys/useKeys";
import { Button } from "../../../ui/Button";
import { useNotices } from "../../../ui/notices";

type Props = { technique: string; asked: HandAsked };

/** Lets the stand-in camera film a made scene in this hand, to be looked at and measured. */
export function FilmIt({ technique, asked }: Props) {
  const film = useFilmIt();
  const navigate = useNavigate();
  const { notify, fail } = useNotices();
  const go = () => {
    if (film.isPending) return;
    film.mutate(
      { technique, focal_eq_mm: asked.focal_eq_mm, rate: asked.rate },
      {
        onError: fail,
        onSuccess: (made) => {
          notify({
            text: `Filmed: “${made.name}”. Predicted gust ${format.gust(made.predicted.gust)}.`,
            hint: "A made scene, simulated; it is measured like any film and teaches nothing of you.",
          });
          void navigate(`/takes/${made.take_id}`);
        },
      },
    );
  };
  useKeys({ "Film it with my hand": { f: go } });
  return (
    <Button disabled={film.isPending} onClick={go}>
      {film.isPending ? "Filming, about ten seconds…" : "Film it with my hand"} <Key>F</Key>
    </Button>
  );
}
