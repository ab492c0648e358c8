import { useSyncExternalStore } from "react";
import { Dialog } from "../ui/Dialog";
import { Key } from "./Key";
import { registered, subscribe } from "./register";

/** The keys that count on this page. */
export function KeysDialog({ onClose }: { onClose: () => void }) {
  const lines = useSyncExternalStore(subscribe, registered);
  return (
    <Dialog title="Keys of this page" open onClose={onClose}>
      <dl className="grid grid-cols-[auto_1fr] items-center gap-x-4 gap-y-2">
        {lines.map(({ keys, words }) => (
          <div key={`${keys.join()} ${words}`} className="contents">
            <dt className="flex flex-wrap gap-1">
              {keys.map((key) => (
                <Key key={key} told>
                  {key}
                </Key>
              ))}
            </dt>
            <dd>{words}</dd>
          </div>
        ))}
      </dl>
    </Dialog>
  );
}
