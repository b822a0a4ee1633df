import { useRouteError } from "react-router";
import styled from "styled-components";
import { sentenceOf } from "../api/client";

const Page = styled.main`
  max-width: 560px;
  margin: 15vh auto;
  padding: 0 24px;
  h1 {
    font-size: 22px;
    margin-bottom: 8px;
  }
  a {
    display: inline-block;
    margin-top: 16px;
  }
`;

/** Shown when a screen fails: everything kept is on the server, so going back loses nothing. */
export function RouteFault() {
  const error = useRouteError();
  return (
    <Page>
      <h1>This screen failed.</h1>
      <p>{sentenceOf(error)} Everything that was saved is whole.</p>
      <a href="/">To the list of shots</a>
    </Page>
  );
}

export function NothingHere() {
  return (
    <Page>
      <h1>There is nothing at this address.</h1>
      <a href="/">To the list of shots</a>
    </Page>
  );
}
