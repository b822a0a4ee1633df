import { useMutation, useQueryClient } from "@tanstack/react-query";
import { api, dataOf } from "../../api/client";
import type { Hold, SubjectMoves } from "../../api/types";

interface Presses {
  kind: "magnifier" | "rock";
  seed: number;
  times?: number[];
  picks?: number[];
  slower?: number;
  hold?: Hold;
  sway_mm?: number | null;
  subject?: SubjectMoves;
}

/** Has ten presses judged, and keeps the result. */
export function usePresses() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: ({
      times = [],
      picks = [],
      slower = 1,
      hold = "braced",
      sway_mm = null,
      subject = "still",
      ...which
    }: Presses) =>
      dataOf(
        api.POST("/api/practice/results", {
          body: {
            ...which,
            own: null,
            times,
            picks,
            slower,
            hold,
            sway_mm,
            subject,
            pressed: [],
            moves: 0,
            hints: 0,
            time_s: 0,
          },
        }),
      ),
    onSuccess: () => client.invalidateQueries({ queryKey: ["practice"] }),
  });
}
