import { FolderOpen, Video } from "lucide-react";
import { lazy, Suspense, useImperativeHandle, useRef, useState, type Ref } from "react";
import { Button } from "../../../ui/Button";
import { Key } from "../../../keys/Key";
import { useImports } from "./imports";

const FolderDialog = lazy(() =>
  import("./FolderDialog").then((room) => ({ default: room.FolderDialog })),
);
const WebcamDialog = lazy(() =>
  import("./WebcamDialog").then((room) => ({ default: room.WebcamDialog })),
);

export type ChooserHandle = { open: () => void };

/** The button that brings clips in. */
export function Chooser({ ref }: { ref?: Ref<ChooserHandle> }) {
  const { add } = useImports();
  const input = useRef<HTMLInputElement>(null);
  const [other, setOther] = useState<"folder" | "webcam" | null>(null);
  const open = () => input.current?.click();
  useImperativeHandle(ref, () => ({ open }));
  return (
    <>
      <input
        ref={input}
        type="file"
        multiple
        accept="video/*,.mts,.m2ts,.mkv,.avi,.mov,.mxf,.csv,.tsv"
        aria-label="Clips to bring in"
        tabIndex={-1}
        className="sr-only"
        onChange={(event) => {
          add(event.target.files ?? []);
          event.target.value = "";
        }}
      />
      <span className="inline-flex flex-wrap gap-2">
        <Button look="main" onClick={open}>
          Bring clips in <Key>I</Key>
        </Button>
        <Button onClick={() => setOther("folder")} aria-label="From a folder or card">
          <FolderOpen size={15} aria-hidden />
        </Button>
        <Button onClick={() => setOther("webcam")} aria-label="From a connected camera">
          <Video size={15} aria-hidden />
        </Button>
      </span>
      <Suspense>
        {other === "folder" && <FolderDialog onClose={() => setOther(null)} />}
        {other === "webcam" && <WebcamDialog onClose={() => setOther(null)} />}
      </Suspense>
    </>
  );
}
