import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { api, dataOf } from "../../api/client";
import type { Shot } from "../../api/types";

/** Contrast by stop over a stretch of the axis, for the map of stops. */
export function useStopMap(shot: Shot, fromMm: number, toMm: number) {
  const body = { shot, from_mm: fromMm, to_mm: toMm };
  return useQuery({
    queryKey: ["through-focus", body],
    queryFn: () => dataOf(api.POST("/api/plan/through-focus", { body })),
    placeholderData: keepPreviousData,
    retry: false,
    gcTime: 10_000,
  });
}
