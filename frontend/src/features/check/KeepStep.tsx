import { useMutation } from "@tanstack/react-query";
import styled from "styled-components";
import { api, dataOf, sentenceOf } from "../../api/client";
import { Button, LinkButton } from "../../controls/Button";

const Box = styled.div`
  display: grid;
  gap: 6px;
  justify-items: start;
  margin: 2px 0 14px;
`;

/** Frames that say the rail goes farther than its figure, or less far, are a trial of it. */
export function KeepStep({ jobId }: { jobId: string }) {
  const keep = useMutation({
    mutationFn: () =>
      dataOf(api.POST("/api/jobs/{job_id}/kept-step", { params: { path: { job_id: jobId } } })),
  });
  if (keep.data) {
    return (
      <Box role="status">
        <p>
          {keep.data.result?.sentence}{" "}
          {keep.data.believed
            ? "Kept as a trial: new shots with this rail go by it."
            : keep.data.usable
              ? "Kept as a trial, but not used: at Trials you choose which one of this rail you believe."
              : "Kept as a trial, but not used: this rail is not in the kit any more."}
        </p>
        <LinkButton href="/trials">Trials</LinkButton>
      </Box>
    );
  }
  return (
    <Box>
      <Button isPending={keep.isPending} onPress={() => keep.mutate()}>
        Keep this as a trial of the rail
      </Button>
      {keep.error ? <p role="alert">{sentenceOf(keep.error)}</p> : null}
    </Box>
  );
}
