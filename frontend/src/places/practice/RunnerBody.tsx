import type { SessionTake } from "../../api/practice";
import { VariationBody } from "../../body/VariationBody";

type Props = { take: SessionTake; setUp: boolean };

/** How the take is done, from the side and from ahead, beside the figures; on a narrow screen from the
 * side alone, while one sets up. */
export function RunnerBody({ take, setUp }: Props) {
  const { drill_key, variation_key } = take;
  return (
    <>
      <VariationBody
        drill={drill_key}
        variation={variation_key}
        className="absolute bottom-4 left-2 hidden h-[62%] w-[27%] lg:block"
      />
      <VariationBody
        drill={drill_key}
        variation={variation_key}
        view="front"
        className="absolute right-2 bottom-4 hidden h-[62%] w-[27%] lg:block"
      />
      {setUp && (
        <VariationBody
          drill={drill_key}
          variation={variation_key}
          className="mx-auto h-28 w-40 lg:hidden"
        />
      )}
    </>
  );
}
