import { useParams } from "react-router";
import { useKit } from "../../api/kit";
import { FaultView } from "../../ui/FaultView";
import { CameraFields } from "./CameraFields";
import { ItemFrame } from "./ItemPage";
import { LensFields } from "./LensFields";
import { SupportFields } from "./SupportFields";

const NONE = { id: null, name: "", typical: false, setups: [] };

/** A camera, lens or support by its address; `new` starts from the first typical one. */
export function ItemRoute() {
  const { kind, id } = useParams();
  const found = useKit();
  if (found.isLoadingError) return <FaultView error={found.error} />;
  if (!found.data) return <p className="p-8 text-stone">Reading the kit…</p>;
  const { cameras, lenses, supports } = found.data;
  const missing = <p className="p-8">There is no such thing on the kit. Go back to the kit.</p>;
  if (kind === "cameras") {
    const item = cameras.find((one) => String(one.id) === id);
    const model = item ?? cameras.find((one) => one.typical);
    if (!model || (!item && id !== "new")) return missing;
    return (
      <ItemFrame
        key={id}
        kind="cameras"
        one="camera"
        models={cameras}
        item={item ?? { ...NONE, spec: model.spec }}
      >
        {(editor) => <CameraFields {...editor} />}
      </ItemFrame>
    );
  }
  if (kind === "lenses") {
    const item = lenses.find((one) => String(one.id) === id);
    const model = item ?? lenses.find((one) => one.typical && one.spec.mass_g > 0);
    if (!model || (!item && id !== "new")) return missing;
    return (
      <ItemFrame
        key={id}
        kind="lenses"
        one="lens"
        models={lenses}
        item={item ?? { ...NONE, spec: model.spec }}
      >
        {(editor) => <LensFields {...editor} />}
      </ItemFrame>
    );
  }
  const item = supports.find((one) => String(one.id) === id);
  const model = item ?? supports.find((one) => one.typical);
  if (kind !== "supports" || !model || (!item && id !== "new")) return missing;
  return (
    <ItemFrame
      key={id}
      kind="supports"
      one="support"
      models={supports}
      item={item ?? { ...NONE, spec: model.spec }}
    >
      {(editor) => <SupportFields {...editor} />}
    </ItemFrame>
  );
}
