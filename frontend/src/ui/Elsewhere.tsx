import { useEffect, useRef } from "react";
import { Button } from "./Button";
import { differences } from "./differences";

type Props = {
  what: string;
  mine: unknown;
  other: unknown;
  onMine: () => void;
  onOther: () => void;
};

/** Both versions of what was changed in two windows, and the choice between them. */
export function Elsewhere({ what, mine, other, onMine, onOther }: Props) {
  const panel = useRef<HTMLElement>(null);
  useEffect(() => panel.current?.scrollIntoView({ block: "nearest" }), []);
  return (
    <section
      ref={panel}
      role="alert"
      aria-label="Changed in another window"
      className="border-l-4 border-ember bg-paper px-4 py-3 text-note"
    >
      <p className="font-semibold">This {what} was changed in another window since you began.</p>
      <table className="mt-2 w-full max-w-[720px] border-collapse">
        <thead className="text-left text-small text-stone">
          <tr>
            <th className="font-normal" />
            <th className="font-normal">Here, not saved</th>
            <th className="font-normal">In the other window, saved</th>
          </tr>
        </thead>
        <tbody>
          {differences(mine, other).map((one) => (
            <tr key={one.what} className="border-t border-line align-baseline">
              <th className="py-1 pr-4 text-left font-normal text-stone">{one.what}</th>
              <td className="pr-4 font-medium">{one.mine}</td>
              <td className="font-medium">{one.other}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="mt-3 flex flex-wrap gap-2">
        <Button look="main" onClick={onMine}>
          Save what is here
        </Button>
        <Button onClick={onOther}>Take the other</Button>
      </p>
    </section>
  );
}
