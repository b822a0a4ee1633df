/** Names that nothing else has. `crypto.randomUUID` is not there on a page that came over plain HTTP from another machine. */

/** 32 hexadecimal digits. */
export function newHex(): string {
  return [...crypto.getRandomValues(new Uint8Array(16))]
    .map((byte) => byte.toString(16).padStart(2, "0"))
    .join("");
}
