import { useState } from "react";
import { useNetwork, useNetworkAct, type Network } from "../../api/network";
import { Key } from "../../keys/Key";
import { useKeys } from "../../keys/useKeys";
import { Button } from "../../ui/Button";
import { FaultView } from "../../ui/FaultView";
import { Select } from "../../ui/Select";
import * as format from "../../formats";
import { PairedPhones } from "./PairedPhones";

/** Opening to phones on the local network, and letting them in. */
export function PhonesSection() {
  const found = useNetwork();
  const act = useNetworkAct();
  const [chosen, setChosen] = useState<string | null>(null);
  const network = found.data;
  const addresses = network?.addresses ?? [];
  const address = chosen ?? addresses[0] ?? "";
  const open = Boolean(network?.opening);
  const toggle = () =>
    act.mutate(open ? { act: "close" } : { act: "open", address }, {
      onSuccess: (next) => next.opening && !next.phones.length && act.mutate({ act: "offer" }),
    });
  useKeys({
    [open ? "Close to phones" : "Open to phones"]: { o: () => network && address && toggle() },
    ...(open && { "A code for another phone": { n: () => act.mutate({ act: "offer" }) } }),
  });
  if (found.isLoadingError) return <FaultView error={found.error} />;
  if (!network) return null;
  return (
    <section aria-label="Phones" className="border-b border-line px-4 py-4 sm:px-8">
      <h2 className="title text-heading">Phones</h2>
      <p className="max-w-[80ch] text-note text-stone">
        In the field a phone runs the session, shows the slate, measures live and sends its films,
        over the network that both are in: a phone’s own hot spot will do. Only phones that were
        paired here get in, and they can delete nothing.
      </p>
      {act.error && <FaultView error={act.error} />}
      {!open && addresses.length === 0 && (
        <p role="status" className="mt-2">
          This computer is in no local network at the moment. Join one, or your phone’s hot spot,
          and look here again.
        </p>
      )}
      <div className="mt-2 flex flex-wrap items-center gap-3">
        {!open && addresses.length > 1 && (
          <Select
            label="Address of this computer"
            value={address}
            options={addresses.map((one) => ({ value: one, words: one }))}
            onChange={setChosen}
          />
        )}
        {(open || addresses.length > 0) && (
          <Button look={open ? "quiet" : "main"} disabled={act.isPending} onClick={toggle}>
            {open ? "Close to phones" : "Open to phones"} <Key>O</Key>
          </Button>
        )}
        {open && (
          <Button disabled={act.isPending} onClick={() => act.mutate({ act: "offer" })}>
            {network.code ? "Another code" : "Pair a phone"} <Key>N</Key>
          </Button>
        )}
      </div>
      {network.opening && <Opened network={network} opening={network.opening} />}
      <PairedPhones
        phones={network.phones}
        onRemove={(phone) => act.mutate({ act: "remove", phone })}
      />
    </section>
  );
}

type OpenedProps = { network: Network; opening: NonNullable<Network["opening"]> };

const minutes = (left_s: number) =>
  left_s > 60 ? `${Math.ceil(left_s / 60)} minutes` : "a minute";

/** Where a phone goes, and the code with which it gets in. */
function Opened({ network, opening }: OpenedProps) {
  const { code } = network;
  return (
    <div className="mt-3 flex flex-wrap items-start gap-x-8 gap-y-3">
      {code && (
        <img
          src={`/api/network/code.svg?of=${code.digits}`}
          alt="The address with the code, for the phone’s camera"
          className="w-[200px] border border-line bg-[#fff]"
        />
      )}
      <div className="min-w-0">
        {code ? (
          <p role="status">
            Point the phone’s camera at the picture, or open <b>{opening.address}</b> there and
            enter
            <span className="figure-narrow block text-title tracking-[0.12em]">
              {code.digits.slice(0, 3)} {code.digits.slice(3)}
            </span>
            <span className="text-note text-stone">
              good for {format.seconds(Math.ceil(code.left_s))} and{" "}
              {format.counted(code.tries, "try", "tries")}
            </span>
          </p>
        ) : (
          <p role="status">
            Open at <b>{opening.address}</b>
          </p>
        )}
        <details className="mt-2 max-w-[60ch] text-note text-stone">
          <summary className="cursor-pointer">The phone warns of the certificate?</summary>
          <p className="mt-1">
            It was made on this computer, which the phone cannot know. It is the right one if the
            phone shows this SHA-256 fingerprint:
          </p>
          <code className="block text-fine [overflow-wrap:anywhere]">{opening.fingerprint}</code>
          <p className="mt-1">
            A phone that trusts{" "}
            <a className="underline" href="/api/network/authority.crt">
              this computer’s own certificate
            </a>{" "}
            warns no more, and opens Ridgewind without a network too. It can speak for addresses of
            local networks alone.
          </p>
        </details>
        <p className="mt-2 text-note text-stone">
          Closes by itself when no paired phone, and no other computer that works, was here for{" "}
          {minutes(opening.left_s)}.
        </p>
      </div>
    </div>
  );
}
