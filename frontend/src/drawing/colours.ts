/** The colours of the theme, for what is painted in SVG. */
export const colour = (name: string) => `var(--chakra-colors-${name})`;
export const INK = colour("ink");
export const SECOND = colour("ink-second");
export const LINE = colour("line");
export const SPRUCE = colour("spruce");
export const COPPER = colour("copper");
export const BRICK = colour("brick");
export const SLATE = colour("slate");
export const PANEL = colour("panel");
export const WASH = colour("spruce-wash");
