import { useMemo, useState } from "react";
import styled, { css } from "styled-components";
import { sentenceOf } from "../../api/client";
import type { FoundRig, Shot } from "../../api/types";
import { usePreferences } from "../../look/preferences";
import { fonts } from "../../look/theme";
import { Button, LinkButton } from "../../controls/Button";
import { Check } from "../../controls/Check";
import { Pick } from "../../controls/Pick";
import { QuantityField } from "../../controls/QuantityField";
import { by } from "../../controls/steps";
import { length, lightLost, stop, times } from "../../units/format";
import { useSize } from "../../drawing/useSize";
import { useBench } from "../../shot/ShotContext";
import { RigThumb } from "./RigThumb";
import { thumbScale } from "./thumbScale";
import { useSearch, type Wanted } from "./useSearch";

const Box = styled.section`
  min-width: 0;
  display: flex;
  flex-direction: column;
  min-height: 0;
`;

const Asked = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: 10px 14px;
  padding: 6px 0 8px;
  & > h2 {
    flex: 1 1 200px;
    font-size: 14px;
    font-weight: 650;
    line-height: 1.3;
    align-self: center;
  }
`;

const Room = styled.div`
  width: 122px;
`;

const Order = styled.div`
  width: 150px;
`;

const columns = css`
  display: grid;
  grid-template-columns: minmax(150px, 1fr) 236px 76px 62px 66px 52px 66px;
  gap: 8px;
  align-items: center;
  [data-narrow] & {
    grid-template-columns: minmax(120px, 1fr) 150px 66px 56px 54px 42px 62px;
    gap: 6px;
  }
`;

const Heads = styled.div`
  ${columns}
  padding: 0 8px;
  font-size: 12px;
  color: ${({ theme }) => theme.soft};
  text-align: right;
  & > :first-child {
    text-align: left;
  }
`;

const Found = styled.div`
  overflow: auto;
  min-height: 120px;
  flex: 1;
  border-top: 1px solid ${({ theme }) => theme.strong};
`;

const Line = styled.li`
  ${columns}
  min-height: 50px;
  padding: 4px 8px;
  background: ${({ theme }) => theme.surface};
  border-bottom: 1px solid ${({ theme }) => theme.line};
  &[data-this] {
    background: ${({ theme }) => theme.raised};
  }
  & button {
    padding: 0 8px;
  }
`;

const Words = styled.div`
  min-width: 0;
  font-size: 13px;
  line-height: 1.25;
  strong {
    font-weight: 620;
  }
  small {
    display: block;
    font-size: 12px;
    color: ${({ theme }) => theme.trouble};
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
`;

const Figure = styled.span`
  text-align: right;
  font: 500 13px ${fonts.figures};
  white-space: nowrap;
  small {
    display: block;
    font-size: 12px;
    color: ${({ theme }) => theme.soft};
  }
`;

const Said = styled.p`
  padding: 14px 8px;
  color: ${({ theme }) => theme.soft};
  max-width: 640px;
  &[data-trouble] {
    color: ${({ theme }) => theme.trouble};
  }
`;

const LOOK_FOR = [
  { id: "frame", label: "this frame" },
  { id: "closest", label: "the closest" },
  { id: "widest", label: "the widest" },
] as const;

const ROOM = { frame: "Room at least", closest: "Room at least", widest: "Room there is" } as const;

const ORDERS = [
  { id: "best", label: "best first" },
  { id: "room", label: "most room first" },
  { id: "light", label: "least light lost first" },
  { id: "pieces", label: "fewest pieces first" },
] as const;

/** What of the kit gets this frame: every sensible row, one step from the bench. */
export function Search() {
  const { drawn: shot, plan, edit } = useBench();
  const { units } = usePreferences();
  const [wanted, setWanted] = useState<Wanted>({
    room_mm: 60,
    look_for: "frame",
    carried_only: true,
    order: "best",
  });
  const width =
    shot.framing.by === "frame_width" ? shot.framing.frame_width_mm : (plan?.reach?.frame_width_mm ?? 0);
  const search = useSearch(shot, width, wanted);
  const found = search.data;
  const results = useMemo(() => found?.results ?? [], [found]);
  const [box, size] = useSize<HTMLElement>();
  const narrow = size.width > 0 && size.width < 860;
  const thumb = narrow ? 150 : 236;
  const scale = useMemo(() => thumbScale(results, thumb), [results, thumb]);
  const put = (result: FoundRig) =>
    edit((draft) => ({ ...draft, rig: result.rig, framing: result.framing, measured: result.measured }));
  const here = JSON.stringify(shot.rig.map(identity));
  return (
    <Box ref={box} aria-label="Search the kit" {...(narrow ? { "data-narrow": "" } : {})}>
      <Asked>
        <h2 aria-live="polite">{found?.headline ?? "What of the kit gets this frame?"}</h2>
        <Order>
          <Pick
            label="Look for"
            value={wanted.look_for}
            options={LOOK_FOR}
            onChange={(look_for) => setWanted({ ...wanted, look_for: look_for as Wanted["look_for"] })}
          />
        </Order>
        <Room>
          <QuantityField
            label={ROOM[wanted.look_for]}
            kind="length"
            value={wanted.room_mm}
            step={by(5, 50)}
            onChange={(room_mm) => setWanted({ ...wanted, room_mm: Math.min(Math.max(room_mm, 0), 1e5) })}
          />
        </Room>
        {wanted.look_for === "frame" ? (
          <Order>
            <Pick
              label="Order"
              value={wanted.order}
              options={ORDERS}
              onChange={(order) => setWanted({ ...wanted, order: order as Wanted["order"] })}
            />
          </Order>
        ) : null}
        <Check
          label="Only what is on the table"
          value={wanted.carried_only}
          onChange={(carried_only) => setWanted({ ...wanted, carried_only })}
        />
      </Asked>
      <Heads aria-hidden>
        <span>{found ? `${found.tried.toLocaleString("en-GB")} rows of pieces tried` : ""}</span>
        <span />
        <span>room</span>
        <span>size</span>
        <span>works as</span>
        <span>stops</span>
        <span />
      </Heads>
      <Found>
        <ol aria-label="Rows of pieces found">
          {results.map((result, index) => (
            <Line
              key={index}
              {...(JSON.stringify(result.rig.map(identity)) === here ? { "data-this": "" } : {})}
            >
              <Words>
                <strong>{result.title}</strong>
                {result.against.length ? (
                  <small title={result.against.join(". ")}>{result.against.join("; ")}</small>
                ) : null}
              </Words>
              <RigThumb found={result} pxPerMm={scale} width={thumb} />
              <Figure>{length(result.working_distance_mm, units)}</Figure>
              <Figure>{times(result.magnification)}</Figure>
              <Figure title={`${stop(result.f_number)} marked`}>
                {stop(Number(result.effective_f_number.toPrecision(2)))}
                <small>at {stop(result.f_number)}</small>
              </Figure>
              <Figure title={`of light lost at ${stop(result.f_number)}`}>
                {lightLost(result.stops_lost)}
              </Figure>
              <Button aria-label={`Take it: ${result.title}`} onPress={() => put(result)}>
                Take it
              </Button>
            </Line>
          ))}
        </ol>
        {search.isError ? <Said data-trouble="">{sentenceOf(search.error)}</Said> : null}
        {found && results.length === 0 ? (
          <Said>
            Ask for another frame, or take more of the kit along.{" "}
            <LinkButton href="/kit">Open the kit</LinkButton>
          </Said>
        ) : null}
        {found?.generic ? (
          <Said>
            The kit holds no lens yet: these rows are of generic gear, with usual numbers.{" "}
            <LinkButton href="/kit">Open the kit</LinkButton>
          </Said>
        ) : null}
        {found?.tried ? <Said>{found.bounds}</Said> : null}
      </Found>
    </Box>
  );
}

/** By which two rows are the same. */
function identity(placed: Shot["rig"][number]) {
  return [placed.gear.kit_id ?? placed.gear.name, placed.reversed, placed.at_focal_length_mm ?? null];
}
