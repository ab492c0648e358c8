import { ChevronDown } from "lucide-react";
import { lazy, Suspense, useId, useState, type KeyboardEvent } from "react";
import { triggerLook, type SelectProps } from "./selectLook";

const load = () => import("./SelectPopup");
const SelectPopup = lazy(() => load().then((room) => ({ default: room.SelectPopup })));
const OPENING = new Set(["Enter", " ", "ArrowDown", "ArrowUp"]);

/** One of a few choices. What it opens is loaded when it is first reached for. */
export function Select<T extends string>(props: SelectProps<T>) {
  const { label, value, options, wide = false } = props;
  const id = useId();
  const [opened, setOpened] = useState(false);
  const keys = (event: KeyboardEvent) => {
    if (!OPENING.has(event.key)) return;
    event.preventDefault();
    setOpened(true);
  };
  const closed = (
    <button
      type="button"
      role="combobox"
      aria-label={label}
      aria-expanded={false}
      aria-controls={id}
      onPointerEnter={() => void load()}
      onFocus={() => void load()}
      onClick={() => setOpened(true)}
      onKeyDown={keys}
      className={triggerLook(wide)}
    >
      <span>{options.find((option) => option.value === value)?.words}</span>
      <ChevronDown size={13} className="text-stone" aria-hidden />
    </button>
  );
  if (!opened) return closed;
  return (
    <Suspense fallback={closed}>
      <SelectPopup {...props} onChange={(next) => props.onChange(next as T)} />
    </Suspense>
  );
}
