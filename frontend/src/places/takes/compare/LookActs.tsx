import { Link } from "react-router";
import { Key } from "../../../keys/Key";

type Props = { id: number; pictured: boolean; playing: boolean; onPlaying: (on: boolean) => void };

/** What can be done with the take that is looked at beside a list, and by which key. */
export function LookActs({ id, pictured, playing, onPlaying }: Props) {
  return (
    <>
      <p className="mt-2 flex flex-wrap items-center gap-3 text-note">
        {pictured && (
          <button
            type="button"
            onClick={() => onPlaying(!playing)}
            className="inline-flex items-center gap-1.5 font-semibold underline"
          >
            {playing ? "Pause" : "Play"} <Key>Space</Key>
          </button>
        )}
        <Link to={`/takes/${id}`} className="inline-flex items-center gap-1.5 underline">
          Open it <Key>Enter</Key>
        </Link>
      </p>
      <p className="mt-1 hidden text-small text-stone lg:block">
        <Key>K</Key> keep <Key>D</Key> reject <Key>A</Key> film again; the next open take follows.
      </p>
    </>
  );
}
