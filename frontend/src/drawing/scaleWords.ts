import { figures } from "../units/format";

/** How large a drawing is. A CSS pixel is 1/96 inch by definition, so this is true on a screen that keeps to it. */
export function scaleWords(pxPerMm: number): string {
  const enlargement = pxPerMm / (96 / 25.4);
  return enlargement >= 1
    ? `drawn ${figures(enlargement, 2)}× size`
    : `drawn 1:${figures(1 / enlargement, 2)}`;
}
