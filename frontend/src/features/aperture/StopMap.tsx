import { useEffect, useRef } from "react";
import { ListBox, ListBoxItem } from "react-aria-components";
import styled, { useTheme } from "styled-components";
import { usePreferences } from "../../look/preferences";
import { fonts } from "../../look/theme";
import type { Viewport } from "../../drawing/viewport";
import { frames, lengthInColumn, percent, stop } from "../../units/format";
import { useBench } from "../../shot/ShotContext";
import { useStopMap } from "./useStopMap";

const Box = styled.div`
  position: absolute;
  inset: 0;
  display: grid;
  grid-template-rows: 18px minmax(0, 1fr);
`;

const Caption = styled.div`
  display: flex;
  justify-content: space-between;
  font-size: 12px;
  padding: 0 8px;
  color: ${({ theme }) => theme.soft};
`;

const Figures = styled.div`
  display: grid;
  grid-template-columns: 92px 104px 88px;
  text-align: right;
  position: relative;
`;

/** The stops share the height; a finger needs more than a pointer, and what does not fit is scrolled to. */
const List = styled(ListBox)`
  position: relative;
  display: grid;
  grid-auto-rows: minmax(15px, 1fr);
  overflow: auto;
  @media (max-width: 1100px), (pointer: coarse) {
    grid-auto-rows: minmax(40px, 1fr);
  }
`;

const Row = styled(ListBoxItem)`
  position: relative;
  display: flex;
  align-items: center;
  justify-content: space-between;
  padding: 0 8px;
  font: 500 12.5px ${fonts.figures};
  cursor: pointer;
  outline-offset: -2px !important;
  border-bottom: 1px solid ${({ theme }) => theme.line};
  &[data-selected] {
    font-weight: 750;
    box-shadow: inset 0 0 0 1.5px ${({ theme }) => theme.strong};
  }
  & > span {
    position: relative;
    padding: 0 4px;
    line-height: 1.2;
  }
`;

const Paint = styled.canvas`
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  image-rendering: auto;
`;

const Guides = styled.svg`
  position: absolute;
  top: 18px;
  left: 0;
  pointer-events: none;
`;

/** Every stop of the lens on the rule's own scale: saffron where the smallest detail keeps its contrast. */
export function StopMap({ view }: { view: Viewport }) {
  const { drawn: shot, plan, edit } = useBench();
  const { units } = usePreferences();
  const theme = useTheme();
  const map = useStopMap(shot, view.from, view.to).data;
  const aperture = plan?.aperture;
  if (!aperture) return null;
  const effective = shot.aperture.reading === "effective";
  const threshold = shot.sharp.contrast_threshold * 100;
  return (
    <Box>
      <Caption>
        <span>stop · saffron where detail is sharp, fading where it is softer</span>
        <Figures>
          <span>least contrast</span>
          <span>one frame holds</span>
          <span>rail stack</span>
        </Figures>
      </Caption>
      <List
        aria-label="Stops of the lens"
        selectionMode="single"
        disallowEmptySelection
        selectedKeys={[String(aperture.f_number)]}
        onSelectionChange={(keys) => {
          const key = keys === "all" ? undefined : [...keys][0];
          const chosen = aperture.stops.find((each) => String(each.f_number) === key);
          if (chosen)
            edit((draft) => ({
              ...draft,
              aperture: {
                ...draft.aperture,
                f_number: effective ? chosen.effective_f_number : chosen.f_number,
              },
            }));
        }}
      >
        {aperture.stops.map((each) => (
          <Row
            key={each.f_number}
            id={String(each.f_number)}
            textValue={`${stop(each.f_number)}, worst contrast ${percent(Math.max(each.worst_contrast, 0))}`}
          >
            <Strip
              values={map?.contrast_percent[map.f_numbers.indexOf(each.f_number)]}
              threshold={threshold}
              colour={theme.sharp}
            />
            <span>
              {stop(each.f_number)}
              {each.f_number === aperture.best_f_number && each.worst_contrast * 100 >= threshold
                ? " best"
                : ""}
            </span>
            <Figures>
              <span>{percent(Math.max(each.worst_contrast, 0))}</span>
              <span>
                {each.depth_of_field_mm > 0 ? lengthInColumn(each.depth_of_field_mm, units) : "none"}
              </span>
              <span>{each.frames === null ? "none" : frames(each.frames)}</span>
            </Figures>
          </Row>
        ))}
      </List>
      <Guides width={view.width} height={view.height} aria-hidden>
        {[0, plan.depth_mm].map((place, index) => (
          <line
            key={index}
            x1={view.x(place)}
            x2={view.x(place)}
            y1={0}
            y2={view.height}
            stroke={theme.subject}
            strokeDasharray="3 3"
            strokeWidth={1.5}
          />
        ))}
      </Guides>
    </Box>
  );
}

/** One stop's contrast along the axis: solid at and above the threshold, fading below, nothing where reversed. */
function Strip({
  values,
  threshold,
  colour,
}: {
  values: number[] | undefined;
  threshold: number;
  colour: string;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    const context = canvas.current?.getContext("2d");
    if (!context || !values) return;
    context.clearRect(0, 0, values.length, 1);
    context.fillStyle = colour;
    values.forEach((value, index) => {
      context.globalAlpha =
        value >= threshold ? 0.55 + (0.45 * value) / 100 : Math.max((value / threshold) * 0.3, 0);
      context.fillRect(index, 0, 1, 1);
    });
  }, [values, threshold, colour]);
  return <Paint ref={canvas} width={values?.length ?? 1} height={1} aria-hidden />;
}
