import { useLocation } from "react-router";
import { Dialog } from "./ui/Dialog";
import { Key } from "./ui/Key";

type Line = [keys: string, words: string];

const EVERYWHERE: Line[] = [
  ["1", "Go to Plan"],
  ["2", "Go to Kit"],
  ["3", "Go to Practice"],
  ["4", "Go to Takes"],
  ["5", "Go to Findings"],
  ["T", "Light or dusk theme"],
  ["Z", "Undo what can be undone"],
  ["?", "These keys"],
];

/** Keys by the address of their page; the first that fits counts. */
const PAGES: [address: RegExp, keys: Line[]][] = [
  [
    /^\/takes\/compare/,
    [
      ["↑ ↓", "Choose a take"],
      ["K", "Keep it"],
      ["D", "Reject it"],
      ["A", "Film it again"],
      ["Space", "Play or pause it"],
      ["L", "Align starts or moves"],
      ["Enter", "Open it"],
      ["Esc", "Back"],
    ],
  ],
  [
    /^\/findings\/blind/,
    [
      ["Y N", "Smooth enough, or not"],
      ["← →", "Back, or leave it"],
      ["Esc", "Stop"],
    ],
  ],
  [/^\/findings/, [["B", "Mark takes blind"]]],
  [/^\/settings/, []],
  [
    /^\/takes\/\d+/,
    [
      ["Enter", "Play the verdict"],
      ["P", "See the verdict rendered"],
      ["R", "Render the preview again"],
      ["Y N", "Smooth to you, or not"],
      ["K D A", "Keep, reject, film again"],
      ["Space", "Play or pause"],
      ["← →", "One frame back or on"],
      ["Shift ← →", "One second back or on"],
      ["C", "Loop the lee"],
      ["M", "Mark a subject; again for the middle"],
      ["S", "Bands and spectrum"],
      ["↑ ↓", "Earlier or later take"],
      ["Delete", "Delete this take"],
      ["Esc", "Back to the list"],
    ],
  ],
  [
    /^\/kit\/setups\/\d+\/card/,
    [
      ["P", "Print the card"],
      ["Esc", "Back to the bench"],
    ],
  ],
  [
    /^\/kit\/setups\//,
    [
      [", .", "Panel before or after"],
      ["F", "Film the move"],
      ["S", "Save"],
      ["P", "Card to carry"],
      ["Esc", "Back to the kit"],
    ],
  ],
  [
    /^\/kit\/./,
    [
      ["S", "Save"],
      ["Esc", "Back to the kit"],
    ],
  ],
  [/^\/kit/, [["N", "New set-up"]]],
  [
    /^\/practice\/\d+/,
    [
      ["Enter", "Begin or go on"],
      ["Space", "Pause, go on"],
      ["← →", "Repeat, skip"],
      ["G B", "Felt good, felt bad"],
      ["1 … 5", "How tired"],
      ["K", "Tick the next check"],
      ["M", "Mute"],
      ["Esc", "Stop"],
    ],
  ],
  [
    /^\/practice/,
    [
      ["N", "Plan a session"],
      ["Enter", "Open the next one"],
    ],
  ],
  [/^\/plan\/weeks/, []],
  [
    /^\/plan\/drills\/./,
    [
      ["N", "Copy as your own"],
      ["S", "Save"],
      ["Esc", "Back to the drills"],
    ],
  ],
  [/^\/plan\/drills/, [["/", "Find a drill"]]],
  [
    /^\/plan$/,
    [
      ["R", "Another order"],
      ["Enter", "Keep and practise"],
    ],
  ],
  [
    /^\/plan/,
    [
      ["↑ ↓", "Choose a brief"],
      ["N", "New from this one"],
      ["S", "Save"],
    ],
  ],
  [
    /./,
    [
      ["I", "Bring clips in"],
      ["↑ ↓", "Choose a take"],
      ["Enter", "Open it"],
      ["B", "Side by side"],
      ["Delete", "Delete it"],
      ["/", "Find by name"],
    ],
  ],
];

/** The keys of the page. */
export function KeysDialog({ open, onClose }: { open: boolean; onClose: () => void }) {
  const { pathname } = useLocation();
  const here = PAGES.find(([address]) => address.test(pathname))?.[1] ?? [];
  return (
    <Dialog title="Keys of this page" open={open} onClose={onClose}>
      <dl className="grid grid-cols-[auto_1fr] items-center gap-x-4 gap-y-2">
        {[...here, ...EVERYWHERE].map(([keys, words]) => (
          <div key={`${keys} ${words}`} className="contents">
            <dt className="flex gap-1">
              {keys.split(" ").map((key) => (
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
