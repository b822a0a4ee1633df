import { Link } from "react-aria-components";
import { createContext, memo, useContext, useMemo, useState, type ReactNode } from "react";
import { createPortal } from "react-dom";
import styled from "styled-components";
import { usePreferences } from "../look/preferences";
import { Button } from "./Button";

const Bar = styled.header`
  display: grid;
  grid-template-columns: minmax(max-content, 1fr) minmax(0, auto) minmax(max-content, 1fr);
  align-items: center;
  gap: 16px;
  min-height: 48px;
  padding: 0 16px;
  border-bottom: 1px solid ${({ theme }) => theme.line};
`;

const Home = styled(Link)`
  display: inline-flex;
  align-items: center;
  gap: 10px;
  min-height: 40px;
  font-size: 17px;
  font-weight: 750;
  letter-spacing: -0.01em;
  text-decoration: none;
  cursor: pointer;
`;

const Places = styled.nav`
  display: flex;
  align-items: center;
  gap: 4px;
`;

const Place = styled(Link)`
  display: inline-flex;
  align-items: center;
  min-height: 40px;
  padding: 0 9px;
  color: ${({ theme }) => theme.soft};
  text-decoration: none;
  cursor: pointer;
  &[data-hovered] {
    color: ${({ theme }) => theme.ink};
    text-decoration: underline;
    text-underline-offset: 3px;
  }
`;

const Title = styled.div`
  text-align: center;
  font-weight: 650;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
`;

const Right = styled.div`
  display: flex;
  justify-self: end;
  align-items: center;
  justify-content: flex-end;
  gap: 8px;
  font-size: 13px;
  button {
    min-height: 40px;
    padding: 0 10px;
    font-size: 13px;
    border-color: ${({ theme }) => theme.line};
  }
`;

/** What a screen puts into a bar that stood there before it: its room is kept, so that nothing makes way for it. */
const Own = styled.div`
  display: flex;
  align-items: center;
  justify-content: flex-end;
  gap: 8px;
  min-width: 170px;
`;

interface Slots {
  title: HTMLElement | null;
  own: HTMLElement | null;
}
const SlotsContext = createContext<Slots | null>(null);

/** The mark: a plane lying across. */
export function Mark() {
  return (
    <svg width="26" height="16" viewBox="0 0 26 16" aria-hidden>
      <path d="M1 11.5 22.5 1 25 4.5 3.5 15z" fill="#efb22a" stroke="#8f6400" />
    </svg>
  );
}

/** The bar on every screen: home, the name of what is open, and what is chosen for this browser. */
export function TopBar({ title, children }: { title?: ReactNode; children?: ReactNode }) {
  const slots = useContext(SlotsContext);
  if (slots) {
    return (
      <>
        {slots.title ? createPortal(title, slots.title) : null}
        {slots.own ? createPortal(children, slots.own) : null}
      </>
    );
  }
  return (
    <Bar>
      <AllPlaces />
      <Title>{title}</Title>
      <Right>
        {children}
        <Choices />
      </Right>
    </Bar>
  );
}

/**
 * A bar, and what comes in under it: a `TopBar` in there writes into this one. It stays one and the same while what is
 * open is fetched, so that a press on it that began before is not lost.
 */
export function UnderOneBar({ children }: { children: ReactNode }) {
  const [title, setTitle] = useState<HTMLElement | null>(null);
  const [own, setOwn] = useState<HTMLElement | null>(null);
  const slots = useMemo(() => ({ title, own }), [title, own]);
  return (
    <>
      <Bar>
        <AllPlaces />
        <Title ref={setTitle} />
        <Right>
          <Own ref={setOwn} />
          <Choices />
        </Right>
      </Bar>
      <SlotsContext value={slots}>{children}</SlotsContext>
    </>
  );
}

const AllPlaces = memo(function AllPlaces() {
  return (
    <Places aria-label="Places">
      <Home href="/">
        <Mark /> Just Plane
      </Home>
      <Place href="/">Shots</Place>
      <Place href="/kit">Kit</Place>
      <Place href="/trials">Trials</Place>
      <Place href="/notebook">Notebook</Place>
      <Place href="/practice">Practice</Place>
    </Places>
  );
});

/** Units and theme, apart, so that they are not drawn anew with what stands beside them. */
const Choices = memo(function Choices() {
  const { units, theme, setUnits, setTheme } = usePreferences();
  const paper = theme === "paper";
  return (
    <>
      <Button onPress={() => setUnits(units === "mm" ? "in" : "mm")}>
        {units === "mm" ? "To inches" : "To mm"}
      </Button>
      <Button onPress={() => setTheme(paper ? "dark" : "paper")}>{paper ? "Darken" : "Lighten"}</Button>
    </>
  );
});
