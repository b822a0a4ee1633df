import {
  keepPreviousData,
  useInfiniteQuery,
  useMutation,
  useQuery,
  useQueryClient,
} from "@tanstack/react-query";
import { useState } from "react";
import { FileTrigger, Link } from "react-aria-components";
import { useNavigate } from "react-router";
import styled from "styled-components";
import { api, dataOf, Refusal, sentenceOf } from "../../api/client";
import type { KeptShot, Shot, ShotLine } from "../../api/types";
import { usePreferences } from "../../look/preferences";
import { fonts } from "../../look/theme";
import { Button } from "../../controls/Button";
import { length, seconds, times, unbroken } from "../../units/format";
import { lastStation } from "../../shot/stations";
import { TopBar } from "../../controls/TopBar";
import { useArrival } from "../../controls/useArrival";
import { useStill } from "../../controls/useStill";
import { useKit, useShelf } from "../../gear/useKit";
import { DevicesLink } from "./DevicesLink";
import { ANY, LookFor } from "./LookFor";
import { copyOf, newShot } from "./newShot";
import { ForGood } from "./ForGood";
import { ToPack } from "./ToPack";

const Page = styled.main`
  max-width: 1040px;
  margin: 0 auto;
  padding: 28px 24px 60px;
`;

const Head = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 10px;
  margin-bottom: 18px;
  h1 {
    flex: 1;
    font-size: 24px;
    letter-spacing: -0.01em;
  }
`;

const Rows = styled.ul`
  border-top: 1px solid ${({ theme }) => theme.strong};
`;

const Row = styled.li`
  display: grid;
  grid-template-columns: minmax(0, 1fr) 84px 84px auto auto;
  gap: 12px;
  align-items: center;
  min-height: 68px;
  border-bottom: 1px solid ${({ theme }) => theme.line};
`;

const Open = styled(Link)`
  display: block;
  padding: 10px 0;
  text-decoration: none;
  cursor: pointer;
  & > * {
    display: block;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  strong {
    font-size: 16px;
    font-weight: 650;
  }
  span {
    color: ${({ theme }) => theme.soft};
  }
  &[data-hovered] strong {
    text-decoration: underline;
    text-underline-offset: 3px;
  }
`;

const Figure = styled.span`
  text-align: right;
  font: 500 14px ${fonts.figures};
`;

const Trouble = styled.p`
  margin-bottom: 16px;
  padding: 10px 14px;
  border: 1px dashed ${({ theme }) => theme.trouble};
  color: ${({ theme }) => theme.trouble};
`;

const Empty = styled.p`
  padding: 28px 0;
  color: ${({ theme }) => theme.soft};
  max-width: 480px;
`;

const More = styled.div`
  display: flex;
  justify-content: center;
  padding: 18px 0;
`;

const LARGEST_FILE = 6_000_000;

/** Every shot, last changed first; make one, bring one in, put one away. */
export function ShotList() {
  const { units } = usePreferences();
  useArrival("Shots");
  const [removed, setRemoved] = useState<"no" | "yes">("no");
  const [asked, setAsked] = useState(ANY);
  const looking = asked.text !== "" || asked.heading !== "";
  const list = useInfiniteQuery({
    queryKey: ["shots", units, removed, asked],
    queryFn: ({ pageParam: after }) =>
      dataOf(api.GET("/api/shots", { params: { query: { units, removed, after, ...asked } } })),
    initialPageParam: "",
    getNextPageParam: (last) => last.next || null,
    refetchOnMount: "always",
    placeholderData: keepPreviousData,
  });
  const alive = useQuery({
    queryKey: ["alive"],
    queryFn: () => dataOf(api.GET("/api/alive")),
    staleTime: Infinity,
  });
  const work = useShotWork();
  // Come back to, it is shown once asked anew: the order of before would change under a hand that is about to press.
  const [isAskedAnew, setAskedAnew] = useState(false);
  if (!isAskedAnew && list.isFetchedAfterMount) setAskedAnew(true);
  const shown = useStill(isAskedAnew ? list.data : undefined);
  const pages = shown?.pages ?? [];
  const headings = pages[0]?.headings ?? [];
  const lines = pages.flatMap((page) => page.shots);
  return (
    <>
      <TopBar title={alive.data?.demo ? "Demo" : undefined} />
      <Page>
        <Head>
          <h1>{removed === "no" ? "Shots" : "Shots put away"}</h1>
          <Button data-weight="quiet" onPress={() => setRemoved(removed === "no" ? "yes" : "no")}>
            {removed === "no" ? "Put away …" : "Back to shots"}
          </Button>
          <DevicesLink />
          <FileTrigger
            acceptedFileTypes={[".json", "application/json"]}
            onSelect={(files) => work.open.mutate(files?.[0])}
          >
            <Button>Open a shot file</Button>
          </FileTrigger>
          <Button
            data-weight="main"
            isDisabled={!work.ready || list.isPending}
            onPress={() =>
              work.make.mutate({ count: lines.length, last: lines.find((each) => !each.damaged) })
            }
          >
            New shot
          </Button>
        </Head>
        {work.trouble ? <Trouble role="alert">{work.trouble}</Trouble> : null}
        {list.isError ? <Trouble role="alert">{sentenceOf(list.error)}</Trouble> : null}
        {lines.length || looking ? <LookFor asked={asked} headings={headings} onChange={setAsked} /> : null}
        {lines.length ? (
          <Rows>
            {lines.map((line) => (
              <ShotRow
                key={line.shot_id}
                line={line}
                removed={removed === "yes"}
                onMove={(put) => work.move.mutate({ line, put })}
              />
            ))}
          </Rows>
        ) : shown ? (
          <Empty>
            {looking
              ? "No shot answers to that. Look for less, or under any heading."
              : removed === "no"
                ? "No shots yet. Make one: say how deep the subject is and how wide the frame, and the program says what it takes."
                : "Nothing has been put away."}
          </Empty>
        ) : null}
        {lines.length && removed === "no" ? <ToPack heading={asked.heading} /> : null}
        {removed === "yes" ? <ForGood /> : null}
        {shown && list.hasNextPage ? (
          <More>
            <Button isPending={list.isFetchingNextPage} onPress={() => void list.fetchNextPage()}>
              Show older shots
            </Button>
          </More>
        ) : null}
      </Page>
    </>
  );
}

/** What can be done to one shot from the list. */
type Move = "away" | "back" | "copy" | "undo";

function ShotRow({
  line,
  removed,
  onMove,
}: {
  line: ShotLine;
  removed: boolean;
  onMove: (put: Move) => void;
}) {
  const { units } = usePreferences();
  return (
    <Row>
      <Open href={`/shots/${line.shot_id}/${lastStation(line.shot_id)}`}>
        <strong>{line.name}</strong>
        <span>
          {line.heading ? `${line.heading} · ` : ""}
          {line.hold_still_s === null ? "" : `keeps ${seconds(line.hold_still_s)} · `}
          {unbroken(line.headline)}
        </span>
      </Open>
      <Figure>{line.magnification === null ? "—" : times(line.magnification)}</Figure>
      <Figure>{length(line.depth_mm, units)}</Figure>
      {removed ? (
        <span />
      ) : (
        <Button
          data-weight="quiet"
          aria-label={`${line.damaged ? "Go back a version of" : "Copy"} ${line.name}`}
          onPress={() => onMove(line.damaged ? "undo" : "copy")}
        >
          {line.damaged ? "Go back" : "Copy"}
        </Button>
      )}
      <Button
        data-weight="quiet"
        aria-label={`${removed ? "Bring back" : "Put away"} ${line.name}`}
        onPress={() => onMove(removed ? "back" : "away")}
      >
        {removed ? "Bring back" : "Put away"}
      </Button>
    </Row>
  );
}

/** What can be done to shots from the list, and what went wrong with the last of it. */
function useShotWork() {
  const shelf = useShelf().data;
  const kit = useKit().data?.kit;
  const navigate = useNavigate();
  const queries = useQueryClient();
  const [trouble, setTrouble] = useState<string | null>(null);
  const done = (kept: KeptShot) => {
    setTrouble(null);
    void navigate(`/shots/${kept.shot_id}/subject`);
  };
  const failed = (error: unknown) => setTrouble(sentenceOf(error));
  const make = useMutation({
    mutationFn: async ({ count, last }: { count: number; last: ShotLine | undefined }) => {
      if (!shelf || !kit) throw new Error("The shelf of gear has not arrived yet. Try again.");
      const before = last ? await shotOrNull(last.shot_id) : null;
      const shot = newShot(kit, shelf, `Shot ${count + 1}`, before);
      // What stands on the table may not reach the usual frame: then it begins with what it gives.
      const plan = await dataOf(api.POST("/api/plan", { body: shot }));
      const within = plan.reach ? shot : { ...shot, framing: { by: "closest" as const } };
      return dataOf(api.POST("/api/shots", { body: within }));
    },
    onSuccess: done,
    onError: failed,
  });
  const open = useMutation({
    mutationFn: async (file: File | undefined) => {
      if (!file) throw new Error("No file was chosen.");
      if (file.size > LARGEST_FILE) {
        throw new Error(
          `“${file.name}” holds ${(file.size / 1e6).toFixed(1)} MB; a shot file holds less than ${LARGEST_FILE / 1e6} MB, its photograph with it. Choose the .json file that was saved from a shot.`,
        );
      }
      return addFromFile(await file.arrayBuffer());
    },
    onSuccess: done,
    onError: failed,
  });
  const move = useMutation({
    mutationFn: async ({ line, put }: { line: ShotLine; put: Move }) => {
      const params = { path: { shot_id: line.shot_id } };
      if (put === "copy") {
        const { shot } = await dataOf(api.GET("/api/shots/{shot_id}", { params }));
        return dataOf(api.POST("/api/shots", { body: copyOf(shot) }));
      }
      if (put === "undo") {
        const body = { base_revision: line.revision };
        return dataOf(api.POST("/api/shots/{shot_id}/undo", { params, body }));
      }
      return dataOf(
        put === "away"
          ? api.DELETE("/api/shots/{shot_id}", { params })
          : api.POST("/api/shots/{shot_id}/bring-back", { params }),
      );
    },
    onSuccess: () => {
      setTrouble(null);
      void queries.invalidateQueries({ queryKey: ["shots"] });
    },
    onError: failed,
  });
  return { make, open, move, trouble, ready: shelf !== undefined && kit !== undefined };
}

/** A shot, or none where it cannot be had: a new one is made all the same. */
async function shotOrNull(shot_id: string): Promise<Shot | null> {
  const { data } = await api.GET("/api/shots/{shot_id}", { params: { path: { shot_id } } });
  return data?.shot ?? null;
}

async function addFromFile(content: ArrayBuffer): Promise<KeptShot> {
  const response = await fetch("/api/shots/from-file", { method: "POST", body: content });
  const answer = (await response.json()) as unknown;
  if (!response.ok) throw new Refusal(answer as Refusal["problem"]);
  return answer as KeptShot;
}
