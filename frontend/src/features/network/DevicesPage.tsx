import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import styled from "styled-components";
import { api, dataOf, sentenceOf } from "../../api/client";
import { putKnown } from "../../api/known";
import { Button } from "../../controls/Button";
import { Section } from "../../controls/panel";
import { TopBar } from "../../controls/TopBar";
import { useArrival } from "../../controls/useArrival";
import { fonts } from "../../look/theme";
import { useHere } from "../../shot/useHere";

const Page = styled.main`
  display: grid;
  gap: 12px;
  max-width: 720px;
  margin: 0 auto;
  padding: 24px 20px 40px;
  h1 {
    font-size: 22px;
  }
  p {
    max-width: 60ch;
  }
`;

const Code = styled.div`
  display: grid;
  grid-template-columns: auto minmax(0, 1fr);
  gap: 6px 24px;
  align-items: center;
  padding: 16px;
  background: ${({ theme }) => theme.raised};
  img {
    grid-row: span 3;
    width: 200px;
    height: 200px;
  }
  output {
    font: 600 56px/1 ${fonts.figures};
    letter-spacing: 0.08em;
  }
`;

const List = styled.ul`
  list-style: none;
  padding: 0;
  margin: 0;
  li {
    display: flex;
    justify-content: space-between;
    align-items: center;
    gap: 12px;
    padding: 6px 0;
    border-bottom: 1px solid ${({ theme }) => theme.line};
  }
  small {
    color: ${({ theme }) => theme.soft};
  }
`;

/** Devices of the network: how one is let in, and who may come in now. */
export function DevicesPage() {
  const here = useHere();
  useArrival("Devices");
  return (
    <>
      <TopBar title="Devices" />
      <Page>
        <h1>From the tablet beside the camera</h1>
        {here === null ? (
          <p>Looking…</p>
        ) : !here.on_network ? (
          <p>
            The program answers on this machine only. To let a tablet or a second laptop in, stop it and start
            it with <code>just-plane serve --on-network</code>.
          </p>
        ) : here.this_machine ? (
          <LetIn />
        ) : (
          <p>
            This device is {here.name}. Others are let in, and shown out, on the machine that runs the
            program.
          </p>
        )}
      </Page>
    </>
  );
}

function LetIn() {
  const queries = useQueryClient();
  const code = useMutation({ mutationFn: () => dataOf(api.POST("/api/network/code")) });
  const left = useSecondsLeft(code.data?.seconds ?? 0, code.submittedAt);
  const list = useQuery({
    queryKey: ["devices"],
    queryFn: () => dataOf(api.GET("/api/network/devices")),
    refetchInterval: 3000,
  });
  const out = useMutation({
    mutationFn: (device_id: string) =>
      dataOf(api.DELETE("/api/network/devices/{device_id}", { params: { path: { device_id } } })),
    onSuccess: (told) => putKnown(queries, ["devices"], told),
  });
  const error = code.error ?? list.error ?? out.error;
  return (
    <>
      {list.data ? <Safety way={list.data.way} /> : null}
      {code.data && left > 0 ? (
        <Code>
          <img src={code.data.picture} alt={`QR code of ${code.data.addresses[0]} with the code`} />
          <output aria-label="Code">{code.data.digits}</output>
          <span>valid for {Math.ceil(left)} s, five tries</span>
          <span>
            Point its camera at the picture, or open{" "}
            {code.data.addresses.map((address) => (
              <code key={address}>{address} </code>
            ))}
          </span>
        </Code>
      ) : null}
      <div>
        <Button data-weight="main" isPending={code.isPending} onPress={() => code.mutate()}>
          {code.data ? "Another code" : "Let a device in"}
        </Button>
      </div>
      {error ? <p role="alert">{sentenceOf(error)}</p> : null}
      <Section>May come in</Section>
      {list.data?.devices.length === 0 ? <p>No device yet.</p> : null}
      <List>
        {list.data?.devices.map((device) => (
          <li key={device.device_id}>
            <span>
              {device.name} <small>{seenWords(device.last_seen_at)}</small>
            </span>
            <Button
              aria-label={`Show out: ${device.name}`}
              isPending={out.isPending}
              onPress={() => out.mutate(device.device_id)}
            >
              Show out
            </Button>
          </li>
        ))}
      </List>
    </>
  );
}

function Safety({ way }: { way: { encrypted: boolean; fingerprint: string | null } }) {
  return way.encrypted ? (
    <p>
      What goes between this machine and a device is encrypted. The device warns once, for nobody but this
      machine vouches for its certificate: compare what it shows with <code>{way.fingerprint}</code>.
    </p>
  ) : (
    <p>
      What goes between this machine and a device is not encrypted: anybody in the same network could read
      along. Use it in a network that you trust, or start the program with <code>--on-network --tls</code>.
    </p>
  );
}

function seenWords(at: string | null): string {
  return at === null ? "not seen yet" : `seen ${new Date(at).toLocaleString("en-GB")}`;
}

/** Counted down from when it was asked for. */
function useSecondsLeft(seconds: number, since: number): number {
  const [now, setNow] = useState(() => Date.now());
  useEffect(() => {
    const timer = setInterval(() => setNow(Date.now()), 500);
    return () => clearInterval(timer);
  }, []);
  return since ? Math.min(Math.max(seconds - (now - since) / 1000, 0), seconds) : 0;
}
