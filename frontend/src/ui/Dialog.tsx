import { X } from "lucide-react";
import { Dialog as Radix } from "radix-ui";
import type { ReactNode } from "react";

type Props = {
  title: string;
  open: boolean;
  onClose: () => void;
  wide?: boolean;
  children: ReactNode;
};

/** A sheet over the page, closed by Escape. */
export function Dialog({ title, open, onClose, wide = false, children }: Props) {
  return (
    <Radix.Root open={open} onOpenChange={(next) => !next && onClose()}>
      <Radix.Portal>
        <Radix.Overlay className="fixed inset-0 z-(--layer-overlay) bg-ink/40" />
        <Radix.Content
          aria-describedby={undefined}
          className={`rounded fixed top-[8vh] left-1/2 z-(--layer-dialog) max-h-[86vh] overflow-y-auto ${wide ? "w-[min(94vw,720px)]" : "w-[min(92vw,440px)]"} -translate-x-1/2 border border-line bg-paper p-6 shadow-xl`}
        >
          <Radix.Title className="title mb-3 text-large">{title}</Radix.Title>
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
