import { useEffect, useEffectEvent } from "react";
import { useSearchParams } from "react-router";
import { shotLike, type ShotAsked } from "../../../api/shot";
import { useTakes } from "../../../api/takes";
import { useNotices } from "../../../ui/notices";
import { Select } from "../../../ui/Select";

type Props = { put: (part: Partial<ShotAsked>) => void };

const NONE = "none";

/** A clip to be matched fills in what is asked: as smooth, through its lens, of its kind and length. */
export function MatchClip({ put }: Props) {
  const [search, setSearch] = useSearchParams();
  const { notify, fail } = useNotices();
  const takes = useTakes({ sort: "imported", descending: true }).data?.pages[0]?.takes ?? [];
  const measured = takes.filter((take) => take.gust !== null);
  const match = useEffectEvent((id: number) => {
    void shotLike(id)
      .then(({ name, ...shot }) => {
        put(shot);
        notify({ text: `Asked for a shot like “${name}”.`, hint: "Change what should differ." });
      })
      .catch(fail);
  });
  const wanted = Number(search.get("like"));
  useEffect(() => {
    if (!wanted) return;
    setSearch({}, { replace: true });
    match(wanted);
  }, [wanted, setSearch]);
  return (
    <Select
      label="Match a clip"
      value={NONE}
      options={[
        { value: NONE, words: "Match a clip" },
        ...measured.map((take) => ({ value: String(take.id), words: take.name })),
      ]}
      onChange={(id) => id !== NONE && setSearch({ like: id }, { replace: true })}
    />
  );
}
