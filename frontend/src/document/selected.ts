/** What is chosen in the drawing: a stage of the document and one of its members, the motor, or the supply. */
export interface Selected {
  path: string;
  member: string;
}

/** The supply as it is chosen; the strip under the drawing has it. */
export const SUPPLY: Selected = { path: "drive.supply", member: "supply" };

export function isSelected(selected: Selected | null, path: string, member: string): boolean {
  return selected?.path === path && selected.member === member;
}
