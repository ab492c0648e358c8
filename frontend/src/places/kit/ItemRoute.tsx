import type { ReactNode } from "react";
import { Link, useParams } from "react-router";
import { useKit, type KitKind, type Specs } from "../../api/kit";
import { FaultView } from "../../ui/FaultView";
import { CameraFields } from "./CameraFields";
import { ItemFrame, type Editor } from "./ItemPage";
import { LensFields } from "./LensFields";
import { SupportFields } from "./SupportFields";

const NONE = { id: null, name: "", typical: false, setups: [] };

type Item<S> = { id: number; name: string; typical: boolean; setups: string[]; spec: S };
type Props<K extends KitKind> = {
  kind: K;
  one: string;
  items: Item<Specs[K]>[];
  /** Whether a new one may begin with the figures of this one. */
  begins?: (spec: Specs[K]) => boolean;
  children: (editor: Editor<Specs[K]>) => ReactNode;
};

/** A camera, lens or support by its address; `new` starts from the first typical one. */
export function ItemRoute() {
  const { kind } = useParams();
  const found = useKit();
  if (found.isLoadingError) return <FaultView error={found.error} />;
  if (!found.data) return <p className="p-8 text-stone">Reading the kit…</p>;
  const { cameras, lenses, supports } = found.data;
  switch (kind) {
    case "cameras":
      return (
        <OneOf kind="cameras" one="camera" items={cameras}>
          {(editor) => <CameraFields {...editor} />}
        </OneOf>
      );
    case "lenses":
      return (
        <OneOf kind="lenses" one="lens" items={lenses} begins={(spec) => spec.mass_g > 0}>
          {(editor) => <LensFields {...editor} />}
        </OneOf>
      );
    case "supports":
      return (
        <OneOf kind="supports" one="support" items={supports}>
          {(editor) => <SupportFields {...editor} />}
        </OneOf>
      );
    default:
      return <Missing />;
  }
}

function OneOf<K extends KitKind>({ kind, one, items, begins, children }: Props<K>) {
  const { id } = useParams();
  const item = items.find((each) => String(each.id) === id);
  const model = item ?? items.find((each) => each.typical && (begins?.(each.spec) ?? true));
  if (!model || (!item && id !== "new")) return <Missing />;
  return (
    <ItemFrame
      key={id}
      kind={kind}
      one={one}
      models={items}
      item={item ?? { ...NONE, spec: model.spec }}
    >
      {children}
    </ItemFrame>
  );
}

function Missing() {
  return (
    <p className="p-8">
      This is not in the kit: it may have been removed.{" "}
      <Link to="/kit" className="underline">
        Go back to the kit
      </Link>
      .
    </p>
  );
}
