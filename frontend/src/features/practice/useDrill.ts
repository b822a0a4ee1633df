import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import { api, dataOf, sentenceOf } from "../../api/client";
import type { Drill, DrillKind, DrillSetting, PracticeResult } from "../../api/types";
import { MOVE_MS, turned, type KnobName } from "./hand";

/** A drill being played: knobs, moves, presses, and what it was worth. */
export function useDrill(kind: DrillKind, seed: number, shotId?: string) {
  const client = useQueryClient();
  const asked = useQuery({
    queryKey: ["drill", kind, seed, shotId],
    staleTime: Infinity,
    // A shot that cannot be practised on says so at once.
    retry: false,
    queryFn: () =>
      dataOf(api.GET("/api/practice/drill", { params: { query: { kind, seed, shot_id: shotId } } })),
  });
  const drill = asked.data;
  const which = { kind, seed, own: drill?.own ?? null };
  const [setting, setSetting] = useState<DrillSetting | null>(null);
  const [settled, setSettled] = useState<DrillSetting | null>(null);
  const [moves, setMoves] = useState(0);
  const [pressed, setPressed] = useState<DrillSetting[]>([]);
  const [hints, setHints] = useState(0);
  const [saw, setSaw] = useState("");
  const [hint, setHint] = useState("");
  const began = useRef(0);
  const now = setting ?? drill?.start ?? null;

  const move = useMutation({
    mutationFn: ({ before, after }: { before: DrillSetting; after: DrillSetting }) =>
      dataOf(api.POST("/api/practice/move", { body: { ...which, before, after } })),
    onSuccess: (said) => {
      setSaw(said.saw);
      setHint("");
    },
  });
  const ask = useMutation({
    mutationFn: (at: DrillSetting) =>
      dataOf(api.POST("/api/practice/move", { body: { ...which, before: at, after: at } })),
    onSuccess: (said) => {
      setHint(said.hint);
      setHints((count) => count + 1);
    },
  });
  const judge = useMutation({
    mutationFn: (where: DrillSetting[]) =>
      dataOf(
        api.POST("/api/practice/results", {
          body: {
            ...which,
            pressed: where,
            moves: moves + (settled === where.at(-1) ? 0 : 1),
            times: [],
            picks: [],
            slower: 1,
            hold: "braced",
            sway_mm: null,
            subject: "still",
            hints,
            time_s: began.current ? (performance.now() - began.current) / 1000 : 0,
          },
        }),
      ),
    // Not judged, not pressed: when the server is back the same frame is pressed again.
    onError: () => setPressed((all) => all.slice(0, -1)),
    onSuccess: () => client.invalidateQueries({ queryKey: ["practice"] }),
  });

  // A setting that stays is a move.
  const judged = judge.data !== undefined;
  const last = settled ?? drill?.start ?? null;
  useEffect(() => {
    if (judged || !setting || !last || JSON.stringify(setting) === JSON.stringify(last)) return;
    const timer = setTimeout(() => {
      setSettled(setting);
      setMoves((count) => count + 1);
      move.mutate({ before: last, after: setting });
    }, MOVE_MS);
    return () => clearTimeout(timer);
  }, [setting, last]); // eslint-disable-line react-hooks/exhaustive-deps

  const turn = (name: KnobName, clicks: number) => {
    if (!drill || judge.data) return;
    began.current ||= performance.now();
    setSetting((at) => turned(drill, at ?? drill.start, name, clicks));
  };
  const press = () => {
    if (!drill || !now || judge.data || judge.isPending) return;
    const where = [...pressed, now];
    setPressed(where);
    if (where.length >= drill.presses) judge.mutate(where);
  };
  const result: PracticeResult | null = judge.data ?? null;
  const trouble = asked.error ?? judge.error;
  return {
    drill: drill as Drill | undefined,
    which,
    now,
    moves,
    pressed,
    hints,
    saw,
    hint,
    turn,
    press,
    result,
    ask,
    setSetting,
    trouble: trouble ? sentenceOf(trouble) : "",
  };
}

export type Playing = ReturnType<typeof useDrill>;
