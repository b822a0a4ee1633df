import { useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import styled from "styled-components";
import { api, dataOf } from "../../api/client";
import type { Gear } from "../../api/types";
import { Button } from "../../controls/Button";

const Box = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  padding-top: 12px;
  border-top: 1px solid ${({ theme }) => theme.line};
  p {
    flex: 1 1 100%;
    margin: 0;
  }
`;

/** Taking a piece out of the kit: asked first when a shot has it. The shots keep their copies. */
export function PutAway({
  gear,
  onPutAway,
  onCopy,
}: {
  gear: Gear;
  onPutAway: () => void;
  onCopy: () => void;
}) {
  const [asking, setAsking] = useState(false);
  const uses = useQuery({
    queryKey: ["kit-uses"],
    queryFn: () => dataOf(api.GET("/api/kit/uses")),
    refetchOnMount: "always",
  });
  const shots = uses.data?.uses.find((use) => use.kit_id === gear.kit_id)?.shots ?? [];
  // Pressed before it was known whether a shot has it: where none does, there is nothing to ask.
  const free = asking && uses.isSuccess && !shots.length;
  useEffect(() => {
    if (free) onPutAway();
  }, [free, onPutAway]);
  if (asking && (uses.isPending || free)) {
    return (
      <Box role="status">
        <p>Looking which shots have this piece…</p>
      </Box>
    );
  }
  if (asking) {
    return (
      <Box role="alert">
        <p>
          {shots.length ? having(shots) : "Which shots have this piece cannot be told now."} A shot keeps its
          numbers; only the kit loses it.
        </p>
        <Button data-weight="main" onPress={onPutAway}>
          Take it out all the same
        </Button>
        {/* The button that was pressed is gone: a hand on the keys goes on here. */}
        <Button autoFocus onPress={() => setAsking(false)}>
          Leave it
        </Button>
      </Box>
    );
  }
  return (
    <Box>
      <Button onPress={onCopy}>Copy it</Button>
      <Button onPress={() => (shots.length || !uses.isSuccess ? setAsking(true) : onPutAway())}>
        Take it out of the kit
      </Button>
    </Box>
  );
}

function having(shots: string[]): string {
  const many = shots.length === 1 ? "One shot has" : `${shots.length} shots have`;
  return `${many} this piece: ${shots.slice(0, 4).join("; ")}${shots.length > 4 ? " and more" : ""}.`;
}
