/** What is looked at, in the address: "?at=drive.stages[0] driver" is a wheel, "?at=vehicle.grip" a field. */
import { useEffect } from "react";
import { useSearchParams } from "react-router";
import { type Selected, SUPPLY } from "../../document/selected";

const FIRST_SOURCE: Selected = { path: "drive.branches[0].source", member: "motor" };
const QUIET_MS = 300;
const PATIENCE_FRAMES = 120;

/** What is chosen in the drawing where a wheel, or a field of the line, is linked to; null of anything else. */
export function selectionOf(at: string): Selected | null {
  const [path = "", ...member] = at.split(" ");
  const stage = /^drive(\.branches\[\d+\])?\.stages\[\d+\]/.exec(path);
  if (stage) return { path: stage[0], member: member.join(" ") || "driver" };
  const branch = /^drive\.branches\[\d+\]/.exec(path);
  if (branch) return { path: `${branch[0]}.source`, member: "motor" };
  if (path.startsWith(SUPPLY.path)) return SUPPLY;
  return path.startsWith("drive.") ? FIRST_SOURCE : null;
}

/** The address of what is chosen. */
export const linkTo = ({ path, member }: Selected) => `${path} ${member}`;

/** Keeps the address and what is chosen in step. */
export function useDeepLink(
  station: string,
  selected: Selected | null,
  untouched: Selected,
  select: (selected: Selected) => void,
): void {
  const [search, setSearch] = useSearchParams();
  const at = search.get("at");
  useEffect(() => {
    const chosen = at ? selectionOf(at) : null;
    if (chosen) select(chosen);
    return at ? focusWhenThere(at) : undefined;
  }, [at, select]);
  const wanted = selected && selected !== untouched && station === "line" ? linkTo(selected) : null;
  useEffect(() => {
    if (!wanted || wanted === at) return;
    const wait = window.setTimeout(() => setSearch({ at: wanted }, { replace: true }), QUIET_MS);
    return () => window.clearTimeout(wait);
  }, [wanted, at, setSearch]);
}

/** Puts the focus into a field, once its station is painted. */
function focusWhenThere(path: string): () => void {
  let left = PATIENCE_FRAMES;
  let frame = 0;
  const look = () => {
    const field = document.querySelector<HTMLElement>(`[data-path="${CSS.escape(path)}"] input`);
    if (field) return field.focus();
    if (left-- > 0) frame = requestAnimationFrame(look);
  };
  frame = requestAnimationFrame(look);
  return () => cancelAnimationFrame(frame);
}
