import { useNavigate, useParams } from "react-router";
import { memo, useCallback, useEffect, useMemo, useRef, useState } from "react";
import styled from "styled-components";
import { sentenceOf } from "../../api/client";
import { mostOf } from "../../api/fields";
import type { FieldProblem, KeptShot, Shot, WayAnswer } from "../../api/types";
import { usePreferences } from "../../look/preferences";
import { LinkButton } from "../../controls/Button";
import { Compare } from "../compare/Compare";
import { BenchArea } from "./BenchArea";
import { Foot } from "./Foot";
import {
  barLiesOver,
  pastBar,
  SaveWord,
  savingOf,
  standsAgainst,
  type SaveWordProps,
} from "../../shot/editing/SaveBar";
import { BenchContext, sentence, type OnTheBench } from "../../shot/ShotContext";
import { isStation, keepStation, lastStation, STATIONS, type StationId } from "../../shot/stations";
import { StationPanel } from "./StationPanel";
import { KeepingBar } from "./KeepingBar";
import { Tape } from "./Tape";
import { tapeAnswers } from "./tapeAnswers";
import { TopBar, UnderOneBar } from "../../controls/TopBar";
import { useArrival } from "../../controls/useArrival";
import { useReminders } from "../../shot/Reminders";
import { useCalm } from "../../shot/useCalm";
import { usePlan } from "../../shot/usePlan";
import { useLog } from "../../shot/useLog";
import { useRun } from "../../shot/useRun";
import { useShot, useShotEditing } from "../../shot/useShot";
import { inOrder } from "../../shot/ways";
import { useCheck } from "../check/useCheck";
import { useShortcuts } from "./useShortcuts";

const Page = styled.div`
  display: grid;
  grid-template-rows: auto auto minmax(0, 1fr) auto;
  height: 100vh;
  height: 100dvh;
  min-height: 560px;
`;

const Columns = styled.main`
  ${barLiesOver}
  display: grid;
  grid-template-columns: 304px minmax(0, 1fr);
  min-height: 0;
  @media (max-width: 1100px) {
    grid-template-columns: 272px minmax(0, 1fr);
  }
`;

const Panel = styled.section`
  position: relative; /* the hidden inputs of choices stay inside, and do not lengthen the page */
  padding: 14px 16px calc(20px + ${pastBar});
  overflow: auto;
  scroll-padding-bottom: ${pastBar};
  border-right: 1px solid ${({ theme }) => theme.line};
`;

const Message = styled.div`
  margin: 12vh auto 0;
  max-width: 520px;
  padding: 0 24px;
  p {
    margin-bottom: 16px;
  }
`;

const MOST_PINNED = mostOf("/pinned");
/** How often the panel follows: soon after a key, and while something is dragged as often as one can read it. */
const [PANEL_MS, DRAGGED_PANEL_MS] = [120, 200];

/** One shot, at one station of the order of work. */
export function ShotPage() {
  const { shotId = "", station } = useParams();
  const query = useShot(shotId);
  return (
    <Page>
      <UnderOneBar>
        {query.data ? (
          <OpenShot
            key={shotId}
            opened={query.data}
            station={isStation(station) ? station : lastStation(shotId)}
          />
        ) : (
          <Message>
            <p>{query.isError ? sentenceOf(query.error) : "Opening the shot…"}</p>
            {query.isError ? <LinkButton href="/">To the list of shots</LinkButton> : null}
          </Message>
        )}
      </UnderOneBar>
    </Page>
  );
}

function OpenShot({ opened, station }: { opened: KeptShot; station: StationId }) {
  const asking = useRef<(draft: Shot) => void>(undefined);
  const editing = useShotEditing(
    opened,
    useCallback((draft: Shot) => asking.current?.(draft), []),
  );
  const { units } = usePreferences();
  const navigate = useNavigate();
  const { draft: shot, kept, edit } = editing;
  const planned = usePlan(shot, units);
  const { plan, ask } = planned;
  useEffect(() => {
    asking.current = ask;
  }, [ask]);
  const [looked, setLooked] = useState<WayAnswer["id"] | null>(null);
  const [point, selectPoint] = useState<string | null>(null);
  const [comparing, setComparing] = useState(false);

  const ways = useMemo(() => plan?.ways ?? [], [plan]);
  const way =
    ways.find((each) => each.id === looked) ??
    ways.find((each) => each.id === shot.chosen_way) ??
    ways.find((each) => each.recommended) ??
    null;

  const refused = planned.problems.length ? planned.problems : editing.problems;
  const bench = useMemo<OnTheBench>(() => {
    const at = (field: string, severities: string[]) => {
      const found = plan?.findings.find(
        (finding) =>
          severities.includes(finding.severity) &&
          (finding.field === field || finding.field.startsWith(`${field}/`)),
      );
      return found ? sentence(found) : undefined;
    };
    return {
      shot,
      drawn: refused.length || !canBeDrawn(shot) ? (planned.of ?? shot) : shot,
      plan,
      edit,
      way,
      lookAt: setLooked,
      point,
      selectPoint,
      shotId: kept.id,
      problemAt: (field) =>
        refused.find((problem) => problem.field === field || problem.field.startsWith(`${field}/`))
          ?.message ?? at(field, ["trouble"]),
      cautionAt: (field) => at(field, ["caution", "note"]),
    };
  }, [shot, plan, planned.of, edit, way, refused, point, kept.id]);

  useShortcuts({
    undo: editing.undo,
    redo: editing.redo,
    nextWay: () => {
      const { possible } = inOrder(ways);
      const index = possible.findIndex((each) => each.id === way?.id);
      const next = possible[(index + 1) % possible.length];
      if (next) setLooked(next.id);
    },
    station: (number) => {
      const target = STATIONS[number - 1];
      if (target) void navigate(`/shots/${kept.id}/${target.id}`);
    },
  });
  useWhereItStands(kept.id, shot.name, station);

  const decide = useCallback(
    (id: WayAnswer["id"] | null) => edit((draft) => ({ ...draft, chosen_way: id })),
    [edit],
  );
  const pin = useCallback(
    (id: WayAnswer["id"], pinned: boolean) =>
      edit((draft) => ({
        ...draft,
        pinned: [...draft.pinned.filter((each) => each !== id), ...(pinned ? [id] : [])].slice(-MOST_PINNED),
      })),
    [edit],
  );
  return (
    <BenchContext value={bench}>
      <ShotBar name={shot.name} {...savingOf(editing)} reachable={planned.reachable} />
      <ShotTape bench={bench} station={station} refused={refused} />
      <Columns>
        {standsAgainst(editing, planned.reachable) ? (
          <KeepingBar shotId={kept.id} editing={editing} reachable={planned.reachable} />
        ) : null}
        <CalmPanel
          bench={bench}
          station={station}
          shotId={kept.id}
          mayCome={planned.reachable && !refused.length}
        />
        {comparing ? (
          <Compare shotId={kept.id} onBack={() => setComparing(false)} />
        ) : (
          <BenchArea station={station} shotId={kept.id} />
        )}
      </Columns>
      <Foot
        plan={plan}
        before={refused.length > 0}
        way={way}
        chosen={shot.chosen_way ?? null}
        pinned={shot.pinned}
        beside={shot.beside.length}
        comparing={comparing}
        onChoose={decide}
        onPin={pin}
        onCompare={setComparing}
      />
    </BenchContext>
  );
}

interface ShotBarProps extends SaveWordProps {
  name: string;
}

/** The bar on top, drawn anew only with what stands in it. */
const ShotBar = memo(function ShotBar({ name, ...save }: ShotBarProps) {
  return (
    <TopBar title={name}>
      <SaveWord {...save} />
    </TopBar>
  );
});

interface ShotTapeProps {
  bench: OnTheBench;
  station: StationId;
  refused: FieldProblem[];
}

/** What every station has to say: the plan's, and of the last run, check and note. */
function ShotTape({ bench, station, refused }: ShotTapeProps) {
  const { shotId, drawn, plan, way } = bench;
  const { units } = usePreferences();
  const { job, report, whose, loading } = useCheck(shotId);
  const { run } = useRun(shotId);
  const { entries } = useLog({ shot: shotId, asOf: run ? `${run.run_id} ${run.state}` : "" });
  const answers = tapeAnswers(
    drawn,
    plan,
    way,
    refused.map((problem) => problem.field),
    units,
    job && !loading ? { state: job.state, report, whose } : null,
    run,
    entries,
  );
  return <Tape shotId={shotId} current={station} answers={answers} />;
}

/** The name in the window's title, and the station kept at which the shot is opened next time. */
function useWhereItStands(shotId: string, name: string, station: StationId) {
  useArrival(name);
  useEffect(() => keepStation(shotId, station), [shotId, station]);
}

interface CalmPanelProps {
  bench: OnTheBench;
  station: StationId;
  shotId: string;
  /** A plan that is not there yet is being worked out. */
  mayCome: boolean;
}

/**
 * The station's panel. It comes with its first answers: they would push its fields down while one is pressed. While
 * something is dragged the drawing comes first; the panel's many fields follow a little behind.
 * Another point taken hold of shows at once: what is typed next is meant for it.
 */
function CalmPanel({ bench, station, shotId, mayCome }: CalmPanelProps) {
  const behind = useCalm(bench, PANEL_MS, DRAGGED_PANEL_MS);
  const calm = behind.point === bench.point ? behind : bench;
  const reminders = useReminders(shotId);
  const coming = (mayCome && !calm.plan) || (station === "subject" && reminders.isPending);
  const [shown, setShown] = useState(false);
  if (!coming && !shown) setShown(true); // and never taken away again: what is asked anew is pending, too
  const panel = useMemo(() => <StationPanel station={station} shotId={shotId} />, [station, shotId]);
  return (
    <BenchContext value={calm}>
      <Panel key={station} aria-label={STATIONS.find((each) => each.id === station)?.title ?? ""}>
        {shown ? panel : null}
      </Panel>
    </BenchContext>
  );
}

/** Whether a draft that the server has not judged yet would fit any drawing. */
function canBeDrawn(shot: Shot): boolean {
  return shot.subject.depth_mm >= 0 && shot.subject.depth_mm < 1e6;
}
