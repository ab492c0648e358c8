import { Toast } from "radix-ui";
import { Key } from "../keys/Key";
import type { Notice } from "./notices";

const SHOWN_MS = 10_000;
const MOST_SHOWN = 3;

type Props = { notices: Notice[]; onDrop: (id: number) => void };

/** The notices at the foot of the page. */
export function NoticeList({ notices, onDrop }: Props) {
  return (
    <Toast.Provider duration={SHOWN_MS} label="Notice">
      {notices.map((notice, place) => (
        <Toast.Root
          key={notice.id}
          hidden={place < notices.length - MOST_SHOWN}
          onOpenChange={(open) => !open && onDrop(notice.id)}
          className={`rounded flex items-center gap-4 border-l-4 bg-ink px-4 py-3 text-paper shadow-lg ${notice.fault ? "border-ember" : "border-lamp"}`}
        >
          <Toast.Description className="text-note">
            <span className="font-semibold">{notice.text}</span>
            {notice.hint && <span className="block opacity-85">{notice.hint}</span>}
          </Toast.Description>
          {notice.undo && (
            <Toast.Action
              altText="Undo with the key Z"
              onClick={notice.undo}
              className="rounded inline-flex items-center gap-2 border border-current px-2.5 py-1 text-note font-semibold"
            >
              Undo <Key>Z</Key>
            </Toast.Action>
          )}
        </Toast.Root>
      ))}
      <Toast.Viewport className="fixed right-4 bottom-4 left-4 z-(--layer-notice) flex flex-col gap-2 sm:left-auto sm:w-[400px]" />
    </Toast.Provider>
  );
}
