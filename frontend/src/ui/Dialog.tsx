import { X } from "lucide-react";
import { Dialog as Radix } from "radix-ui";
import type { ReactNode } from "react";

type Props = { title: string; open: boolean; onClose: () => void; children: ReactNode };

/** A sheet over the page, closed by Escape. */
export function Dialog({ title, open, onClose, children }: Props) {
  return (
    <Radix.Root open={open} onOpenChange={(next) => !next && onClose()}>
      <Radix.Portal>
        <Radix.Overlay className="fixed inset-0 z-30 bg-ink/40" />
        <Radix.Content
          aria-describedby={undefined}
          className="rounded fixed top-[12vh] left-1/2 z-40 w-[min(92vw,440px)] -translate-x-1/2 border border-line bg-paper p-6 shadow-xl"
        >
          <Radix.Title className="title mb-3 text-[19px]">{title}</Radix.Title>
          {children}
          <Radix.Close
            aria-label="Close"
            className="absolute top-5 right-5 text-stone hover:text-ink"
          >
            <X size={18} />
          </Radix.Close>
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  );
}
