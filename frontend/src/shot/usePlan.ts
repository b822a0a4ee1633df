/** The plan of the draft as it stands: asked at every change, one request at a time, the latest wins. */
import { replaceEqualDeep } from "@tanstack/react-query";
import { useCallback, useEffect, useRef, useState } from "react";
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

interface Asked {
  shot: Shot;
  units: Units;
}

const RETRY_MS = 1500;
const NONE: FieldProblem[] = [];

/**
 * The plan, and `ask` to have it worked out before the change is drawn: the server then works while the page draws.
 * Parts of a plan that come out as they were are the same objects as before, so that what shows them is not drawn anew.
 */
export function usePlan(shot: Shot, units: Units): Planned & { ask: (shot: Shot) => void } {
  const [planned, setPlanned] = useState<Planned>({ plan: null, of: null, problems: NONE, reachable: true });
  const loop = useRef<{ wanted: Asked | null; last: Asked | null; running: boolean }>({
    wanted: null,
    last: null,
    running: false,
  });

  const askFor = useCallback((wanted: Asked) => {
    const state = loop.current;
    if (state.last?.shot === wanted.shot && state.last.units === wanted.units) return;
    state.last = state.wanted = wanted;
    if (state.running) return;
    state.running = true;
    void (async () => {
      while (state.wanted !== null) {
        const asked: Asked = state.wanted;
        state.wanted = null;
        try {
          const plan = await dataOf(
            api.POST("/api/plan", { params: { query: { units: asked.units } }, body: asked.shot }),
          );
          setPlanned((last) => ({
            plan: last.plan ? replaceEqualDeep(last.plan, plan) : plan,
            of: asked.shot,
            problems: NONE,
            reachable: true,
          }));
        } catch (error) {
          if (error instanceof Refusal) {
            const problems = error.problem.problems.length
              ? error.problem.problems
              : [{ field: error.problem.field, message: error.message, value: "" }];
            setPlanned((last) => ({ ...last, problems, reachable: true }));
          } else {
            setPlanned((last) => ({ ...last, reachable: false }));
            await new Promise((resolve) => setTimeout(resolve, RETRY_MS));
            state.wanted ??= asked;
          }
        }
      }
      state.running = false;
    })();
  }, []);

  useEffect(() => askFor({ shot, units }), [askFor, shot, units]);
  const ask = useCallback((draft: Shot) => askFor({ shot: draft, units }), [askFor, units]);
  return { ...planned, ask };
}
