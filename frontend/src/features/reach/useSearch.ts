/** What of the kit gets the frame of this shot: asked a moment after the last change, the last answer kept meanwhile. */
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useMemo } from "react";
import { api, dataOf } from "../../api/client";
import type { SearchAsked, Shot } from "../../api/types";
import { usePreferences } from "../../look/preferences";
import { useCalm } from "../../shot/useCalm";

export interface Wanted {
  room_mm: number;
  look_for: NonNullable<SearchAsked["look_for"]>;
  carried_only: boolean;
  order: NonNullable<SearchAsked["order"]>;
}

export function useSearch(shot: Shot, frameWidth: number, wanted: Wanted) {
  const { units } = usePreferences();
  const asked = useMemo<SearchAsked>(
    () => ({
      body: shot.body,
      crop_mode: shot.crop_mode ?? null,
      camera_on_its_side: shot.camera_on_its_side,
      frame_width_mm: frameWidth,
      ...wanted,
    }),
    [shot.body, shot.crop_mode, shot.camera_on_its_side, frameWidth, wanted],
  );
  const calm = useCalm(asked, 400);
  return useQuery({
    queryKey: ["search", units, calm],
    queryFn: () => dataOf(api.POST("/api/search", { params: { query: { units } }, body: calm })),
    placeholderData: keepPreviousData,
    enabled: calm.frame_width_mm > 0,
  });
}
