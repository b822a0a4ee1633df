/** One shot on the page: where it is kept, and its editing. */
import { useQuery } from "@tanstack/react-query";
import { useMemo, useState } from "react";
import { api, dataOf } from "../api/client";
import { putKnown } from "../api/known";
import type { KeptShot, Shot } from "../api/types";
import { useEditing, type Editing, type Kept, type Place } from "./editing/useEditing";

export type ShotEditing = Editing<Shot>;

export function useShot(shotId: string) {
  return useQuery({
    queryKey: ["shot", shotId],
    queryFn: () => dataOf(api.GET("/api/shots/{shot_id}", { params: { path: { shot_id: shotId } } })),
    refetchOnWindowFocus: "always",
  });
}

export function useShotEditing(opened: KeptShot, onDraft?: (draft: Shot) => void): ShotEditing {
  const [place] = useState(() => placeOf(opened.shot_id));
  const kept = useMemo(() => keptOf(opened), [opened]);
  return useEditing(kept, place, onDraft);
}

function keptOf(kept: KeptShot): Kept<Shot> {
  const { shot_id, shot, ...rest } = kept;
  return { ...rest, id: shot_id, body: shot };
}

function placeOf(shotId: string): Place<Shot> {
  const params = { path: { shot_id: shotId } };
  return {
    id: shotId,
    member: "shot",
    get: async () => keptOf(await dataOf(api.GET("/api/shots/{shot_id}", { params }))),
    put: async (base_revision, shot, continues) =>
      keptOf(
        await dataOf(api.PUT("/api/shots/{shot_id}", { params, body: { base_revision, shot, continues } })),
      ),
    step: async (direction, base_revision) =>
      keptOf(
        await dataOf(
          direction === "undo"
            ? api.POST("/api/shots/{shot_id}/undo", { params, body: { base_revision } })
            : api.POST("/api/shots/{shot_id}/redo", { params, body: { base_revision } }),
        ),
      ),
    arrived: (kept, queries) =>
      void putKnown<KeptShot>(queries, ["shot", shotId], (last) =>
        last
          ? {
              ...last,
              revision: kept.revision,
              can_undo: kept.can_undo,
              can_redo: kept.can_redo,
              removed: kept.removed ?? false,
              shot: kept.body,
            }
          : last,
      ),
  };
}
