/** What is chosen in the drawing: a stage of the document and one of its members, or the motor. */
export interface Selected {
  path: string;
  member: string;
}

export function isSelected(selected: Selected | null, path: string, member: string): boolean {
  return selected?.path === path && selected.member === member;
}
