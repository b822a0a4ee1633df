import { LinkButton } from "../../controls/Button";
import { useHere } from "../../shot/useHere";

/** The way to letting a tablet in, where the program answers on the network. */
export function DevicesLink() {
  const here = useHere();
  return here?.on_network ? <LinkButton href="/devices">Devices</LinkButton> : null;
}
