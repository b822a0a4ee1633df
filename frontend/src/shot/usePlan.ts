/** The plan of the draft as it stands: asked at every change, one request at a time, the latest wins. */
import { useEffect, useRef, useState } from "react";
import { api, dataOf, Refusal } from "../api/client";
import type { FieldProblem, Plan, Shot } from "../api/types";
import type { Units } from "../units/units";

export interface Planned {
  plan: Plan | null;
  /** The shot that `plan` belongs to. */
  of: Shot | null;
  /** Fields of the draft that the contract refuses; the plan shown is then the last one that worked. */
  problems: FieldProblem[];
  reachable: boolean;
}

const RETRY_MS = 1500;

export function usePlan(shot: Shot, units: Units): Planned {
  const [planned, setPlanned] = useState<Planned>({ plan: null, of: null, problems: [], reachable: true });
  const state = useRef<{ wanted: { shot: Shot; units: Units } | null; running: boolean }>({
    wanted: null,
    running: false,
  });

  useEffect(() => {
    const loop = state.current;
    loop.wanted = { shot, units };
    if (loop.running) return;
    loop.running = true;
    void (async () => {
      while (loop.wanted !== null) {
        const asked: { shot: Shot; units: Units } = loop.wanted;
        loop.wanted = null;
        try {
          const plan = await dataOf(
            api.POST("/api/plan", { params: { query: { units: asked.units } }, body: asked.shot }),
          );
          setPlanned({ plan, of: asked.shot, problems: [], reachable: true });
        } catch (error) {
          if (error instanceof Refusal) {
            const problems = error.problem.problems.length
              ? error.problem.problems
              : [{ field: error.problem.field, message: error.message, value: "" }];
            setPlanned((last) => ({ ...last, problems, reachable: true }));
          } else {
            setPlanned((last) => ({ ...last, reachable: false }));
            await new Promise((resolve) => setTimeout(resolve, RETRY_MS));
            loop.wanted ??= asked;
          }
        }
      }
      loop.running = false;
    })();
  }, [shot, units]);

  return planned;
}
