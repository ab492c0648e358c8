import { useEffect } from "react";
import { Link, useSearchParams } from "react-router";
import { usePickedTrial, type PickedAsked } from "../../../api/trials";
import { FaultView } from "../../../ui/FaultView";
import { Select } from "../../../ui/Select";
import { FindingsTabs } from "../FindingsTabs";
import { TrialPicture } from "./TrialPicture";

const GROUPINGS = [
  { value: "variation", words: "By variation" },
  { value: "setup", words: "By set-up" },
  { value: "lens", words: "By lens" },
  { value: "brief", words: "By brief" },
] as const;

/** A trial by hand: any takes that were picked in the list, grouped by what tells them apart. */
export function PickedTrialPage() {
  const [search, setSearch] = useSearchParams();
  const put = (part: Record<string, string>) =>
    setSearch({ ...Object.fromEntries(search), ...part }, { replace: true });
  const grouping = GROUPINGS.find((one) => one.value === search.get("group"))?.value ?? "variation";
  const [control, by] = [search.get("control"), search.get("by")];
  const asked: PickedAsked = {
    takes: search.get("takes") ?? "0",
    grouping,
    ...(control !== null && { control }),
    ...(by !== null && { by }),
  };
  const found = usePickedTrial(asked);
  const trial = found.isError ? undefined : found.data;
  useEffect(() => {
    document.title = "Picked takes · Ridgewind";
  }, []);
  return (
    <>
      <FindingsTabs />
      <header className="flex flex-wrap items-center gap-x-4 gap-y-2 border-b border-line px-4 pt-4 pb-3 sm:px-8">
        <h1 className="title text-title leading-tight">Picked takes compared</h1>
        <span className="flex flex-wrap items-center gap-3 sm:ml-auto">
          <Select
            label="Grouped"
            value={grouping}
            options={GROUPINGS}
            onChange={(group) => put({ group, control: "" })}
          />
          {trial && (
            <Select
              label="Against"
              value={trial.sides.find((side) => side.control)?.key ?? ""}
              options={trial.sides.map((side) => ({
                value: side.key,
                words: `Against ${side.name}`,
              }))}
              onChange={(key) => put({ control: key })}
            />
          )}
          <Link to="/takes" className="text-note underline">
            Pick others
          </Link>
        </span>
      </header>
      {found.isError && <FaultView error={found.error} />}
      {trial && <TrialPicture trial={trial} onBy={(key) => put({ by: key })} />}
    </>
  );
}
