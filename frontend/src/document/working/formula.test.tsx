import { render } from "@testing-library/react";
import { expect, test } from "vitest";
import { Formula, plainFormula, Sign } from "./formula";

const shown = (node: React.ReactNode) => render(<p>{node}</p>).container.querySelector("p")?.innerHTML;

test("symbols get their subscripts and greek letters", () => {
  expect(shown(<Sign name="F_drive" />)).toBe("<i>F<sub>drive</sub></i>");
  expect(shown(<Sign name="eta_t1" />)).toBe("<i>η<sub>t1</sub></i>");
  expect(shown(<Sign name="mu" />)).toBe("<i>μ</i>");
  expect(shown(<Sign name="w1_2" />)).toBe("<i>w<sub>1,2</sub></i>");
});

test("formulas get signs and powers", () => {
  expect(shown(<Formula text="0.5*rho*C_dA*v**2" />)).toBe(
    "0.5 · <i>ρ</i> · <i>C<sub>dA</sub></i> · <i>v</i><sup>2</sup>",
  );
  expect(plainFormula("v**2/(2*b_rate)")).toBe("v²/(2·b_rate)");
});
