import type { PairedPhone } from "../../api/network";
import { when } from "../../formats";
import { Button } from "../../ui/Button";

type Props = { phones: PairedPhone[]; onRemove: (id: number) => void };

/** The phones that are let in, each with when it was last here. */
export function PairedPhones({ phones, onRemove }: Props) {
  if (phones.length === 0) return null;
  return (
    <ul aria-label="Paired phones" className="mt-3 max-w-[640px]">
      {phones.map((phone) => {
        const seen = when(phone.seen_at);
        return (
          <li key={phone.id} className="flex items-center gap-3 border-t border-line py-1.5">
            <b className="min-w-0 grow truncate font-semibold">{phone.name}</b>
            <span className="text-note text-stone">
              last here {seen.day}, {seen.time}
            </span>
            <Button
              aria-label={`Let it in no more: ${phone.name}`}
              onClick={() => onRemove(phone.id)}
            >
              Let it in no more
            </Button>
          </li>
        );
      })}
    </ul>
  );
}
