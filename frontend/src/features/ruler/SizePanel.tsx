import { useMutation, useQueryClient, type UseMutationResult } from "@tanstack/react-query";
import { useState } from "react";
import styled from "styled-components";
import { api, dataOf, sentenceOf } from "../../api/client";
import type { RulerAnswer, Shot, SizeAnswer } from "../../api/types";
import { usePreferences } from "../../look/preferences";
import { Button } from "../../controls/Button";
import { QuantityField } from "../../controls/QuantityField";
import { Segments } from "../../controls/Segments";
import { byShare } from "../../controls/steps";
import { figures, length, unbroken } from "../../units/format";
import { AnswerBox, Fields, Lead, Section, Wide } from "../../controls/panel";
import type { Editing } from "../../shot/editing/useEditing";
import { between, type Point } from "../../drawing/picture";

const Trouble = styled.p`
  margin: 8px 0 12px;
  color: ${({ theme }) => theme.trouble};
`;

interface SizePanelProps {
  editing: Editing<Shot>;
  found: RulerAnswer;
  byHand: boolean;
  onByHand: (byHand: boolean) => void;
  points: Point[];
  onPoints: (points: Point[]) => void;
}

const POINT_UNCERTAINTY_PX = 1.5;

/** What the ticks are in truth, and the size that follows; kept for this rig. */
export function SizePanel({ editing, found, byHand, onByHand, points, onPoints }: SizePanelProps) {
  const [tick, setTick] = useState(1);
  const [span, setSpan] = useState(10);
  const queries = useQueryClient();
  const spanPx = byHand ? between(points) : found.spacing_px;
  const uncertainty = byHand ? POINT_UNCERTAINTY_PX : (found.uncertainty_px ?? 0);
  const work = useMutation({
    mutationFn: (span_px: number) =>
      dataOf(
        api.POST("/api/ruler/size", {
          body: {
            shot: editing.draft,
            picture_width_px: found.picture.width_px,
            picture_height_px: found.picture.height_px,
            span_px,
            span_uncertainty_px: uncertainty,
            real_mm: byHand ? span : tick,
            noted_focal_length_mm: found.picture.focal_length_mm,
          },
        }),
      ),
  });
  const keep = useMutation({
    mutationFn: (answer: SizeAnswer) => keepForRig(answer),
    onSuccess: (_, answer) => {
      void queries.invalidateQueries({ queryKey: ["kit"] });
      void queries.invalidateQueries({ queryKey: ["trials"] });
      editing.edit((draft) => ({ ...draft, measured: answer.measured }));
    },
  });
  const said = [...found.findings, ...(work.data?.findings ?? [])];
  const asked = () => {
    keep.reset();
    work.reset();
  };
  return (
    <>
      <Fields>
        <Wide>
          <Segments
            label="Measure by"
            value={byHand ? "points" : "ticks"}
            options={[
              { id: "ticks", label: "ticks found" },
              { id: "points", label: "two points by hand" },
            ]}
            onChange={(kind) => {
              asked();
              onByHand(kind === "points");
            }}
          />
        </Wide>
        <Wide>
          {byHand ? (
            <QuantityField
              label="Between the two points"
              kind="length"
              value={span}
              step={byShare}
              onChange={(value) => {
                asked();
                if (value > 0) setSpan(value);
              }}
              hint="on the ruler; place both points on the picture, arrows move them"
            />
          ) : (
            <QuantityField
              label="From tick to tick"
              kind="length"
              value={tick}
              step={byShare}
              onChange={(value) => {
                asked();
                if (value > 0) setTick(value);
              }}
              hint="on the ruler, the marks drawn over the picture"
            />
          )}
        </Wide>
      </Fields>
      <Lead>{factsOf(found, byHand, points)}</Lead>
      {said.map((finding) => (
        <Trouble key={finding.code}>
          {finding.message} {finding.remedy}
        </Trouble>
      ))}
      <Fields>
        <Wide>
          <Button
            data-weight="main"
            isPending={work.isPending}
            isDisabled={spanPx === null}
            onPress={() => spanPx !== null && work.mutate(spanPx)}
          >
            Work out the size
          </Button>{" "}
          {byHand && points.length ? <Button onPress={() => onPoints([])}>Points anew</Button> : null}
        </Wide>
      </Fields>
      {work.isError ? <Trouble role="alert">{sentenceOf(work.error)}</Trouble> : null}
      {work.data ? <SizeFound answer={work.data} keep={keep} /> : null}
    </>
  );
}

interface SizeFoundProps {
  answer: SizeAnswer;
  keep: Pick<
    UseMutationResult<unknown, Error, SizeAnswer>,
    "mutate" | "isPending" | "isSuccess" | "isError" | "error"
  >;
}

/** The size that follows, to be kept for the rig. */
function SizeFound({ answer, keep }: SizeFoundProps) {
  const { units } = usePreferences();
  return (
    <>
      <Section>Size on the sensor</Section>
      <AnswerBox>
        <strong>{figures(answer.measured.magnification, 4)}×</strong>
        {unbroken(answer.words)} Frame {length(answer.frame_width_mm, units, 4)} wide.
      </AnswerBox>
      <Fields>
        <Wide>
          <Button
            data-weight="main"
            isPending={keep.isPending}
            isDisabled={keep.isSuccess}
            onPress={() => keep.mutate(answer)}
          >
            {keep.isSuccess ? "Kept for this rig" : "Keep it for this rig"}
          </Button>
        </Wide>
      </Fields>
      {keep.isSuccess && !answer.rig.length ? (
        <Lead>
          Kept with this shot. Some of its pieces are not of the kit, so other shots do not get it by
          themselves.
        </Lead>
      ) : null}
      {keep.isError ? <Trouble role="alert">{sentenceOf(keep.error)}</Trouble> : null}
    </>
  );
}

function factsOf(found: RulerAnswer, byHand: boolean, points: Point[]): string {
  const { picture } = found;
  const notes = [
    `${picture.kind}, ${picture.width_px} × ${picture.height_px} pixels`,
    picture.focal_length_mm === null ? null : `${figures(picture.focal_length_mm)} mm by the camera's note`,
    picture.f_number === null ? null : `f/${figures(picture.f_number)}`,
  ].filter(Boolean);
  const seen = byHand
    ? `${points.length} of 2 points placed.`
    : found.spacing_px === null
      ? ""
      : `${found.ticks} ticks, ${figures(found.spacing_px, 5)} pixels apart.`;
  return `${notes.join(", ")}. ${seen}`;
}

/** Keep the size as a trial of the rig's pieces; nothing where not all of them are of the kit. */
async function keepForRig(answer: SizeAnswer): Promise<void> {
  if (!answer.rig.length) return;
  await dataOf(
    api.POST("/api/trials/by-hand", {
      body: { kit_id: null, ruler: { rig: answer.rig, ...answer.measured }, two_tubes: null },
    }),
  );
}
