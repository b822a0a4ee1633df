import { LinkButton } from "../../controls/Button";
import styled from "styled-components";
import { frames, seconds } from "../../units/format";
import { AnswerBox, Heading, Lead } from "../../controls/panel";
import { Cautions } from "../../shot/Cautions";
import { useBench } from "../../shot/ShotContext";

const Takeaways = styled.div`
  display: grid;
  gap: 8px;
  margin-bottom: 18px;
`;

/** Station 7: what to take to the table. Guiding and recording the run is not built yet, and says so. */
export function RunPanel({ shotId }: { shotId: string }) {
  const { way } = useBench();
  return (
    <>
      <Heading>Take it to the table</Heading>
      <Lead>The steps of the way looked at, in shooting order.</Lead>
      {way?.frames ? (
        <AnswerBox>
          <strong>{way.title}</strong>
          {frames(way.frames)} in {seconds(way.time_s)}.
        </AnswerBox>
      ) : null}
      <Takeaways>
        <LinkButton data-weight="main" href={`/shots/${shotId}/sheet${way ? `?way=${way.id}` : ""}`}>
          Run sheet to print
        </LinkButton>
        {way?.frames ? (
          <LinkButton href={`/api/shots/${shotId}/steps?way=${way.id}`} download="">
            Step table as CSV
          </LinkButton>
        ) : null}
        <LinkButton href={`/api/shots/${shotId}/file`} download="">
          Shot as a file
        </LinkButton>
      </Takeaways>
      <Cautions station="run" />
      <Lead>Driving the rail and camera from here, and recording what was shot, is not there yet.</Lead>
    </>
  );
}
