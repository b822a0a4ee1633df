import { useState, type MouseEvent } from "react";
import styled from "styled-components";
import type { Run } from "../../api/types";
import { Check } from "../../controls/Check";

const Picture = styled.figure`
  margin: 0;
  button {
    display: block;
    width: 100%;
    padding: 0;
    border: 0;
    background: none;
    cursor: zoom-in;
  }
  img {
    display: block;
    width: 100%;
    max-height: 40vh;
    object-fit: contain;
    object-position: left top;
  }
  figcaption {
    font-size: 12px;
    color: ${({ theme }) => theme.soft};
  }
`;

/** What the simulated camera sees with the rail at the next frame; a click shows that place at twice its pixels. */
export function LiveView({ run, frame }: { run: Run; frame: number }) {
  const [marks, setMarks] = useState(false);
  const [at, setAt] = useState<{ left: number; top: number } | null>(null);
  const query = new URLSearchParams({ frame: String(frame), marks: marks ? "yes" : "no" });
  if (at) {
    query.set("from_left", at.left.toFixed(3));
    query.set("from_top", at.top.toFixed(3));
  }
  const look = (event: MouseEvent<HTMLButtonElement>) => {
    const box = event.currentTarget.getBoundingClientRect();
    // By the keyboard there is no place: the middle.
    const inside = event.detail > 0;
    setAt(
      at
        ? null
        : {
            left: inside ? (event.clientX - box.left) / box.width : 0.5,
            top: inside ? (event.clientY - box.top) / box.height : 0.5,
          },
    );
  };
  return (
    <Picture>
      <button
        type="button"
        aria-label={at ? "Show the whole live picture" : "Magnify the live picture"}
        aria-pressed={at !== null}
        onClick={look}
      >
        <img src={`/api/runs/${run.run_id}/view?${query}`} alt={`Live, at frame ${frame + 1}`} />
      </button>
      <figcaption>
        live, at frame {frame + 1}:{" "}
        {at ? "each pixel as two by two" : "the middle of the frame; press it to magnify"}
      </figcaption>
      <Check label="Mark sharp edges" value={marks} onChange={setMarks} />
    </Picture>
  );
}
