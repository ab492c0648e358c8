import { useCallback } from "react";
import { each } from "../api/each";
import { useNotices } from "./notices";

type Change<Sent, Data> = { mutateAsync: (sent: Sent) => Promise<Data> };
type Deed<Sent> = {
  text: string;
  /** What is sent to undo it. */
  undo?: Sent;
};

/** Sends a change and says that it is so once it is, with its undo; or why it is not. */
export function useTelling() {
  const { tell, fail } = useNotices();
  return useCallback(
    <Sent, Data>(change: Change<Sent, Data>, sent: Sent, deed: Deed<Sent>) => {
      const { text, undo } = deed;
      const back = undo !== undefined && { undo: () => each(change, undo, { onError: fail }) };
      tell(change.mutateAsync(sent), { text, ...back });
    },
    [tell, fail],
  );
}
