import { memo, useState, type ReactNode } from "react";
import { Button, Disclosure, DisclosurePanel, Heading } from "react-aria-components";
import styled from "styled-components";
import { useSteady } from "./useSteady";

const Box = styled(Disclosure)`
  border-top: 1px solid ${({ theme }) => theme.line};
  & h2 button {
    width: 100%;
    min-height: 40px;
    text-align: left;
    border: 0;
    padding: 0;
    background: none;
    font-weight: 600;
    font-size: 13px;
    cursor: pointer;
  }
`;

interface FoldProps {
  title: string;
  isOpen: boolean;
  onOpenChange: (open: boolean) => void;
  children: ReactNode;
}

/** Something that is folded away until it is wanted; while it is, nothing of it is drawn anew. */
export function Fold({ title, isOpen, onOpenChange, children }: FoldProps) {
  return (
    <Folding title={title} isOpen={isOpen} onOpenChange={useSteady(onOpenChange)}>
      {isOpen ? children : null}
    </Folding>
  );
}

const Folding = memo(function Folding({ title, isOpen, onOpenChange, children }: FoldProps) {
  return (
    <Box isExpanded={isOpen} onExpandedChange={onOpenChange}>
      <Heading level={2}>
        <Button slot="trigger">{title} …</Button>
      </Heading>
      <DisclosurePanel>{children}</DisclosurePanel>
    </Box>
  );
});

/** Whether the window is tall enough that a panel shows everything without scrolling for long. */
export function isRoomy(): boolean {
  return window.matchMedia("(min-height: 790px)").matches;
}

/** Something rarely needed: open where there is room, folded away on a small screen until it is wanted. */
export function RoomyFold({ title, children }: { title: string; children: ReactNode }) {
  const [open, setOpen] = useState(isRoomy);
  return (
    <Fold title={title} isOpen={open} onOpenChange={setOpen}>
      {children}
    </Fold>
  );
}
