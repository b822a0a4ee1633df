import { useQuery } from "@tanstack/react-query";
import styled from "styled-components";
import { api, dataOf } from "../api/client";

const Box = styled.aside`
  margin: 0 0 16px;
  padding: 10px 14px;
  border-left: 4px solid ${({ theme }) => theme.line};
  background: ${({ theme }) => theme.raised};
  p + p {
    margin-top: 8px;
  }
  small {
    display: block;
    font-size: 12px;
    color: ${({ theme }) => theme.soft};
  }
`;

/** What was written for next time, of shots like this one. */
export function useReminders(shotId: string) {
  return useQuery({
    queryKey: ["reminders", shotId],
    queryFn: () =>
      dataOf(api.GET("/api/shots/{shot_id}/reminders", { params: { path: { shot_id: shotId } } })),
  });
}

/** The same, where a shot is planned. */
export function Reminders({ shotId }: { shotId: string }) {
  const lines = useReminders(shotId).data?.reminders ?? [];
  if (!lines.length) return null;
  return (
    <Box aria-label="From the notebook">
      {lines.map((one) => (
        <p key={one.entry_id}>
          {one.line}
          <small>
            {one.from_}: {one.why}
          </small>
        </p>
      ))}
    </Box>
  );
}
