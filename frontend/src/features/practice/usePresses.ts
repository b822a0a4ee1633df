import { useMutation, useQueryClient } from "@tanstack/react-query";
import { api, dataOf } from "../../api/client";

interface Presses {
  kind: "magnifier" | "rock";
  seed: number;
  times?: number[];
  picks?: number[];
  slower?: number;
}

/** Has ten presses judged, and keeps the result. */
export function usePresses() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: ({ kind, seed, times = [], picks = [], slower = 1 }: Presses) =>
      dataOf(
        api.POST("/api/practice/results", {
          body: { kind, seed, times, picks, slower, pressed: [], moves: 0, hints: 0, time_s: 0 },
        }),
      ),
    onSuccess: () => client.invalidateQueries({ queryKey: ["practice"] }),
  });
}
