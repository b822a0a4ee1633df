import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useNavigate } from "react-router";
import { api, dataOf } from "../../api/client";
import { SaveBar } from "../../shot/editing/SaveBar";
import type { ShotEditing } from "../../shot/useShot";

interface KeepingBarProps {
  shotId: string;
  editing: ShotEditing;
  reachable: boolean;
}

/** What stands against keeping this shot, with what a shot can do about it. */
export function KeepingBar({ shotId, editing, reachable }: KeepingBarProps) {
  const navigate = useNavigate();
  const queries = useQueryClient();
  const asNew = useMutation({
    mutationFn: () => dataOf(api.POST("/api/shots", { body: editing.draft })),
    onSuccess: (kept) => void navigate(`/shots/${kept.shot_id}/subject`),
  });
  const back = useMutation({
    mutationFn: () =>
      dataOf(api.POST("/api/shots/{shot_id}/bring-back", { params: { path: { shot_id: shotId } } })),
    onSuccess: () => {
      editing.takeTheirs();
      void queries.invalidateQueries({ queryKey: ["shots"] });
    },
  });
  return (
    <SaveBar
      editing={editing}
      reachable={reachable}
      onKeepAsNew={() => asNew.mutate()}
      onBringBack={() => back.mutate()}
    />
  );
}
