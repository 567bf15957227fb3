/** Formulas of the core set in type: signs of the field, subscripts, powers. It works nothing out. */
import { Fragment, type ReactNode } from "react";

const GREEK: Record<string, string> = {
  mu: "μ",
  eta: "η",
  th: "θ",
  rho: "ρ",
  slope: "slope",
  creep: "creep",
  share: "share",
};
const TOKEN = /([A-Za-z][A-Za-z0-9_]*|\d+(?:\.\d+)?|\*\*|.)/g;
const FUNCTIONS = new Set(["sin", "cos", "tan", "atan", "atan2", "acos", "hypot", "min", "max", "sum"]);

export function Sign({ name }: { name: string }): ReactNode {
  const [head = "", ...rest] = name.split("_");
  const [, letters = head, digits = ""] = /^([A-Za-z]+)(\d*)$/.exec(head) ?? [];
  const low = [digits, ...rest].filter(Boolean).join(",");
  return (
    <i>
      {GREEK[letters] ?? letters}
      {low && <sub>{low}</sub>}
    </i>
  );
}

export function Formula({ text }: { text: string }): ReactNode {
  const tokens = text.match(TOKEN) ?? [];
  const out: ReactNode[] = [];
  for (let i = 0; i < tokens.length; i++) {
    const token = tokens[i] as string;
    const key = `${i} ${token}`;
    if (token === "**") {
      out.push(<sup key={key}>{tokens[i + 1]}</sup>);
      i++;
    } else if (token === "*") out.push(" · ");
    else if (token === "/") out.push(" / ");
    else if (token === "-") out.push(" − ");
    else if (FUNCTIONS.has(token)) out.push(token === "sum" ? "Σ " : token);
    else if (/^[A-Za-z]/.test(token)) out.push(<Sign key={key} name={token} />);
    else if (/^\d/.test(token)) out.push(number(token));
    else out.push(<Fragment key={key}>{token}</Fragment>);
  }
  return out;
}

const number = (token: string) => (token.startsWith("3.14159") ? "π" : token);

/** The same as plain text, for copying. */
export function plainFormula(text: string): string {
  return text
    .replaceAll("**2", "²")
    .replaceAll("**", "^")
    .replaceAll("*", "·")
    .replaceAll(/3\.14159\d*/g, "π");
}
