import { useEffect, useState } from "react";
import { isUnderWay, useBeginCopy, useFolderCopy, useStopCopy } from "../../../api/folders";
import { useChanged } from "../../../api/keys";

/** The copy that a dialog has asked for. */
export function useAskedCopy() {
  const changed = useChanged();
  const [id, setId] = useState<number | null>(null);
  const begin = useBeginCopy();
  const { mutate: stop } = useStopCopy();
  const found = useFolderCopy(id).data;
  const copy = id === null ? undefined : (found ?? begin.data);
  const settled = copy?.settled;
  useEffect(() => {
    if (settled) changed("films");
  }, [changed, settled]);
  return {
    copy,
    busy: begin.isPending || isUnderWay(copy),
    begin: (ask: { path: string; files: string[] }, onError: (error: unknown) => void) =>
      begin.mutate(ask, { onSuccess: (made) => setId(made.id), onError }),
    stop: () => id !== null && stop(id),
    forget: () => setId(null),
  };
}
