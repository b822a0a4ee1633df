/** The kit on the page: read everywhere, edited on its own page. */
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useMemo, useState } from "react";
import { api, dataOf } from "../api/client";
import { putKnown } from "../api/known";
import type { KeptKit, Kit } from "../api/types";
import { useEditing, type Kept, type Place } from "../shot/editing/useEditing";

const KEY = ["kit"];

export function useKit() {
  return useQuery({
    queryKey: KEY,
    queryFn: () => dataOf(api.GET("/api/kit")),
    refetchOnWindowFocus: "always",
  });
}

/** The starter shelf: generic gear to pick from. */
export function useShelf() {
  return useQuery({ queryKey: ["shelf"], queryFn: () => dataOf(api.GET("/api/shelf")), staleTime: Infinity });
}

export function useKitEditing(opened: KeptKit) {
  const queries = useQueryClient();
  const [place] = useState<Place<Kit>>(() => {
    // What the server says of the pieces arrives with each answer.
    const took = async (kept: KeptKit) => {
      await putKnown(queries, KEY, kept);
      return keptOf(kept);
    };
    return {
      id: "kit",
      member: "kit",
      get: async () => took(await dataOf(api.GET("/api/kit"))),
      put: async (base_revision, kit, continues) =>
        took(await dataOf(api.PUT("/api/kit", { body: { base_revision, kit, continues } }))),
      step: async (direction, base_revision) =>
        took(
          await dataOf(
            direction === "undo"
              ? api.POST("/api/kit/undo", { body: { base_revision } })
              : api.POST("/api/kit/redo", { body: { base_revision } }),
          ),
        ),
      arrived: () => void queries.invalidateQueries({ queryKey: ["search"] }),
    };
  });
  const kept = useMemo(() => keptOf(opened), [opened]);
  return useEditing(kept, place);
}

function keptOf(kept: KeptKit): Kept<Kit> {
  return {
    id: "kit",
    revision: kept.revision,
    can_undo: kept.can_undo,
    can_redo: kept.can_redo,
    body: kept.kit,
  };
}
