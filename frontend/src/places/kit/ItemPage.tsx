import type { ReactNode } from "react";
import { useNavigate } from "react-router";
import { useChanged } from "../../api/keys";
import { saveItem, type KitKind, type Specs } from "../../api/kit";
import { Button } from "../../ui/Button";
import { Key } from "../../keys/Key";
import { useNotices } from "../../ui/notices";
import { Select } from "../../ui/Select";
import { TextField } from "../../ui/TextField";
import { useDraft } from "../../ui/useDraft";
import { useSave } from "../../ui/useSave";
import { useKeys } from "../../keys/useKeys";

export type Editor<S> = {
  spec: S;
  change: (part: Partial<S>) => void;
  problem: (field: string) => string | undefined;
};
type Props<K extends KitKind> = {
  kind: K;
  one: string;
  item: { id: number | null; name: string; typical: boolean; setups: string[]; spec: Specs[K] };
  /** Whose figures a new one may begin with. */
  models: { id: number; name: string; spec: Specs[K] }[];
  children: (editor: Editor<Specs[K]>) => ReactNode;
};

/** The frame of a camera's, a lens's or a support's page: name, fields, and keeping it. */
export function ItemFrame<K extends KitKind>({ kind, one, item, models, children }: Props<K>) {
  const draft = useDraft(`${kind}-${item.id ?? "new"}`, { name: item.name, spec: item.spec });
  const { save, problem, forget } = useSave();
  const changed = useChanged();
  const navigate = useNavigate();
  const { notify, fail } = useNotices();
  const { name, spec } = draft.value;
  const fresh = item.id === null || item.typical;
  const ready = draft.changed || item.id === null;
  const before = { name: item.name, spec: item.spec };
  const keep = () => {
    if (!ready) return;
    const title = item.typical && name === item.name ? `${name}, mine` : name;
    const send = () => saveItem(kind, fresh ? null : item.id, { name: title, spec });
    void save(send, (answer) => {
      draft.drop();
      changed("kit");
      const undo = () =>
        void saveItem(kind, answer.id, before as { name: string; spec: Specs[K] })
          .then(() => changed("kit"))
          .catch(fail);
      notify({
        text: `“${title}” is kept.`,
        hint:
          answer.setups > 0
            ? `${answer.setups} set-ups and the takes filmed with them follow.`
            : undefined,
        ...(fresh ? {} : { undo }),
      });
      void navigate("/kit");
    });
  };
  useKeys({ Save: { s: keep }, "Back to the kit": { Escape: () => void navigate("/kit") } });
  const change = (part: Partial<Specs[K]>) => {
    forget();
    draft.change({ name, spec: { ...spec, ...part } });
  };
  return (
    <div className="max-w-[1000px] space-y-5 px-4 pt-4 pb-8 sm:px-8">
      <header className="flex flex-wrap items-baseline gap-x-4">
        <h1 className="title text-title leading-tight">{item.name || `New ${one}`}</h1>
        <p className="text-stone">
          {item.typical
            ? "Typical, with round figures. What you change is kept as your own."
            : item.setups.length > 0 && `In ${item.setups.join(", ")}. A correction reaches them.`}
        </p>
      </header>
      <TextField
        label="Name"
        value={name}
        problem={problem("name") && "It needs a name"}
        onChange={(next) => (forget(), draft.change({ name: next, spec }))}
      />
      {item.id === null && (
        <BeginLike
          spec={spec}
          models={models}
          onChange={(model) => (forget(), draft.change({ name, spec: model }))}
        />
      )}
      {children({ spec, change, problem })}
      <footer className="flex flex-wrap items-center gap-3">
        <Button look="main" disabled={!ready} onClick={keep}>
          {item.id === null ? `Keep this ${one}` : item.typical ? "Keep as your own" : "Save"}{" "}
          <Key>S</Key>
        </Button>
        {draft.changed && <Button onClick={draft.drop}>Undo the changes</Button>}
        <Button look="bare" onClick={() => void navigate("/kit")}>
          Back to the kit
        </Button>
      </footer>
    </div>
  );
}

/** Stands for figures that are no other thing’s. */
const OWN = "own";

type LikeProps<S> = {
  spec: S;
  models: { id: number; name: string; spec: S }[];
  onChange: (spec: S) => void;
};

/** Whose figures a new thing begins with: nobody looks up all of them at first. */
function BeginLike<S>({ spec, models, onChange }: LikeProps<S>) {
  const like = models.find((one) => JSON.stringify(one.spec) === JSON.stringify(spec));
  const options = models.map((one) => ({ value: String(one.id), words: one.name }));
  return (
    <div className="flex flex-wrap items-center gap-x-3 gap-y-1">
      <span className="label-wide">Begin like</span>
      <Select
        label="Begin like"
        value={like ? String(like.id) : OWN}
        options={like ? options : [{ value: OWN, words: "As entered below" }, ...options]}
        onChange={(id) => {
          const model = models.find((one) => String(one.id) === id);
          if (model) onChange(model.spec);
        }}
      />
      <span className="text-note text-stone">
        Its figures stand below. Correct those that differ.
      </span>
    </div>
  );
}
