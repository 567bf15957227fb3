import type { CSSProperties, ReactNode } from "react";
import { INK } from "./colours";

interface Props {
  x: number;
  y: number;
  children: ReactNode;
  mono?: boolean;
  bold?: boolean;
  size?: number;
  fill?: string;
  anchor?: "start" | "middle" | "end";
  /** Colour of a rim that keeps the text apart from what it lies on. */
  rim?: string;
}

/** A text in a drawing. Its face is a style, since style sheets override the attributes of SVG. */
export function SvgText({
  x,
  y,
  children,
  mono,
  bold,
  size = 13,
  fill = INK,
  anchor = "middle",
  rim,
}: Props) {
  const style: CSSProperties = {
    fontFamily: `var(--chakra-fonts-${mono ? "mono" : "body"})`,
    fontSize: size,
    fontWeight: bold ? 700 : 400,
    ...(rim ? { stroke: rim, strokeWidth: 4, paintOrder: "stroke" } : {}),
  };
  return (
    <text x={x} y={y} textAnchor={anchor} fill={fill} style={style}>
      {children}
    </text>
  );
}
