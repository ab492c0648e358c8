import { useLocation } from "react-router";
import { Dialog } from "./ui/Dialog";
import { Key } from "./ui/Key";

const EVERYWHERE = [
  ["4", "Go to Takes"],
  ["T", "Light or dusk theme"],
  ["Z", "Undo the last deletion"],
  ["?", "These keys"],
];
const LIST = [
  ["I", "Bring clips in"],
  ["↑ ↓", "Choose a take"],
  ["Enter", "Open it"],
  ["Delete", "Delete it"],
  ["/", "Find by name"],
];
const TAKE = [
  ["Enter", "Play the verdict"],
  ["Space", "Play or pause"],
  ["← →", "One frame back or on"],
  ["Shift ← →", "One second back or on"],
  ["C", "Loop the lee"],
  ["↑ ↓", "Earlier or later take"],
  ["Delete", "Delete this take"],
  ["Esc", "Back to the list"],
];

/** The keys of the page. */
export function KeysDialog({ open, onClose }: { open: boolean; onClose: () => void }) {
  const here = /^\/takes\/\d+/.test(useLocation().pathname) ? TAKE : LIST;
  return (
    <Dialog title="Keys of this page" open={open} onClose={onClose}>
      <dl className="grid grid-cols-[auto_1fr] items-center gap-x-4 gap-y-2">
        {[...here, ...EVERYWHERE].map(([keys, words]) => (
          <div key={`${keys} ${words}`} className="contents">
            <dt className="flex gap-1">
              {keys?.split(" ").map((key) => (
                <Key key={key}>{key}</Key>
              ))}
            </dt>
            <dd>{words}</dd>
          </div>
        ))}
      </dl>
    </Dialog>
  );
}
