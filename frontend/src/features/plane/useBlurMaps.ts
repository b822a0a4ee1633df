import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { api, dataOf } from "../../api/client";
import type { BlurMap, Shot } from "../../api/types";
import { useCalm } from "../../shot/useCalm";

const NONE: BlurMap[] = [];

/** Defocus over the frame for each way of one frame; while something is dragged it follows a little behind. */
export function useBlurMaps(shot: Shot): readonly BlurMap[] {
  const body = useCalm(shot, 150);
  const found = useQuery({
    queryKey: ["blur-maps", body],
    queryFn: () => dataOf(api.POST("/api/plan/blur-maps", { body })),
    placeholderData: keepPreviousData,
    retry: false,
    gcTime: 10_000,
  });
  return found.data?.maps ?? NONE;
}
