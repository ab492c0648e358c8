import { useQueries } from "@tanstack/react-query";
import { drillFigureQuery } from "../../api/figures";
import { slateQuery, type SessionDetail } from "../../api/practice";

export type Ready = {
  /** Drawings of the takes' codes that are here, as addresses of pictures. */
  slates: readonly (string | undefined)[];
  /** Everything is here: the session runs to its end without a network. */
  whole: boolean;
};

/** Fetch what a session needs as soon as it is opened, and keep it. */
export function useReady(detail: SessionDetail): Ready {
  const { id, takes } = detail.session;
  const slates = useQueries({ queries: takes.map((take) => slateQuery(id, take.position)) });
  const figures = useQueries({ queries: Object.keys(detail.drills).map(drillFigureQuery) });
  return {
    slates: slates.map((one) => one.data),
    whole: [...slates, ...figures].every((one) => one.isSuccess),
  };
}
