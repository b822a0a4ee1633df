import { useRef, useState } from "react";
import styled from "styled-components";
import { Panes } from "./panes";

const Pane = styled.div`
  min-width: 0;
  min-height: 0;
  overflow: auto;
  border: 1px solid ${({ theme }) => theme.line};
  background: ${({ theme }) => theme.surface};
  img {
    display: block;
  }
  &[data-scale="whole"] {
    overflow: hidden;
    img {
      width: 100%;
      height: 100%;
      object-fit: contain;
    }
  }
`;

export const SCALES = [
  { id: "whole", label: "Whole" },
  { id: "full", label: "100 %" },
  { id: "double", label: "200 %" },
] as const;

export type Scale = (typeof SCALES)[number]["id"];

export interface Held {
  id: string;
  label: string;
  href: string;
}

/** Pictures of the same place at the same scale, moved together: each pixel of a picture is one or four of the screen. */
export function HeldTogether({ pictures, scale }: { pictures: readonly Held[]; scale: Scale }) {
  const panes = useRef<(HTMLDivElement | null)[]>([]);
  const together = (from: number) => {
    const here = panes.current[from];
    if (!here) return;
    for (const [index, there] of panes.current.entries()) {
      if (index === from || !there) continue;
      if (Math.abs(there.scrollLeft - here.scrollLeft) > 0.5) there.scrollLeft = here.scrollLeft;
      if (Math.abs(there.scrollTop - here.scrollTop) > 0.5) there.scrollTop = here.scrollTop;
    }
  };
  return (
    <Panes>
      {pictures.map((picture, index) => (
        <Pane
          key={index}
          ref={(pane) => {
            panes.current[index] = pane;
          }}
          data-scale={scale}
          tabIndex={0}
          role="region"
          aria-label={picture.label}
          onScroll={() => together(index)}
        >
          <AtScale picture={picture} scale={scale} />
        </Pane>
      ))}
    </Panes>
  );
}

/** A picture at the scale of its own pixels, which are known once it has come. */
function AtScale({ picture, scale }: { picture: Held; scale: Scale }) {
  const [size, setSize] = useState<{ width: number; height: number } | null>(null);
  const times = scale === "double" ? 2 : 1;
  return (
    <img
      src={picture.href}
      alt={picture.label}
      onLoad={({ currentTarget: { naturalWidth: width, naturalHeight: height } }) =>
        setSize({ width, height })
      }
      {...(scale !== "whole" && size ? { width: size.width * times, height: size.height * times } : {})}
    />
  );
}
