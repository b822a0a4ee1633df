import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useNavigate } from "react-router";
import styled from "styled-components";
import { api, dataOf, Refusal, sentenceOf } from "../../api/client";
import { Button } from "../../controls/Button";
import { TextBox } from "../../controls/TextBox";
import { Mark } from "../../controls/TopBar";
import { useArrival } from "../../controls/useArrival";

const Page = styled.main`
  display: grid;
  gap: 14px;
  max-width: 420px;
  margin: 0 auto;
  padding: 12vh 24px 24px;
  h1 {
    display: flex;
    align-items: center;
    gap: 10px;
    font-size: 22px;
  }
  button {
    min-height: 56px;
    font-size: 17px;
  }
`;

const SIX = /^[0-9]{6}$/;

/** What a device of the network sees before it was let in. */
export function EnterPage() {
  const queries = useQueryClient();
  const navigate = useNavigate();
  // The picture on the other machine's page brings the code along behind the address.
  const [digits, setDigits] = useState(() => window.location.hash.slice(1).match(SIX)?.[0] ?? "");
  const [name, setName] = useState("Tablet");
  const enter = useMutation({
    mutationFn: () =>
      dataOf(api.POST("/api/network/enter", { body: { digits: digits.replaceAll(/\s/g, ""), name } })),
    onSuccess: async () => {
      await queries.invalidateQueries();
      await navigate("/", { replace: true });
    },
  });
  useArrival("Come in");
  const at = enter.error instanceof Refusal ? enter.error.problem.field : "";
  return (
    <Page>
      <h1>
        <Mark /> Just Plane
      </h1>
      <p>
        On the machine that runs the program, open Devices and ask for a code. It is valid for two minutes.
      </p>
      <TextBox
        label="Code, six digits"
        value={digits}
        onChange={setDigits}
        maxLength={9}
        problem={at === "/digits" ? sentenceOf(enter.error) : undefined}
      />
      <TextBox label="Name of this device" value={name} onChange={setName} maxLength={60} />
      {enter.error && at !== "/digits" ? <p role="alert">{sentenceOf(enter.error)}</p> : null}
      <Button
        data-weight="main"
        isPending={enter.isPending}
        isDisabled={!SIX.test(digits.replaceAll(/\s/g, "")) || !name.trim()}
        onPress={() => enter.mutate()}
      >
        Come in
      </Button>
    </Page>
  );
}
