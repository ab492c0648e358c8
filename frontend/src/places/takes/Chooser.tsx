import { useImperativeHandle, useRef, type Ref } from "react";
import { Button } from "../../ui/Button";
import { Key } from "../../ui/Key";
import { useImports } from "./imports";

export type ChooserHandle = { open: () => void };

/** The button that brings clips in. */
export function Chooser({ ref }: { ref?: Ref<ChooserHandle> }) {
  const { add } = useImports();
  const input = useRef<HTMLInputElement>(null);
  const open = () => input.current?.click();
  useImperativeHandle(ref, () => ({ open }));
  return (
    <>
      <input
        ref={input}
        type="file"
        multiple
        accept="video/*,.mts,.m2ts,.mkv,.avi,.mov,.mxf"
        aria-label="Clips to bring in"
        tabIndex={-1}
        className="sr-only"
        onChange={(event) => {
          add(event.target.files ?? []);
          event.target.value = "";
        }}
      />
      <Button look="main" onClick={open}>
        Bring clips in <Key>I</Key>
      </Button>
    </>
  );
}
