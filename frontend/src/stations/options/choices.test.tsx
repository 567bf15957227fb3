import { fireEvent, screen } from "@testing-library/react";
import { describe, expect, it, vi } from "vitest";
import { api } from "../../api/client";
import { onTheBench } from "../../fixtures";
import { Choices } from "./Choices";
import { Layouts } from "./Layouts";
import { NO_WISHES, type StageChoice } from "./request";
import { TurnedRound } from "./TurnedRound";

const gear = (teeth: number) => ({ id: `g${teeth}`, kind: "gear", teeth, module: "1 mm" });
const PARTS = [12, 15, 18, 48, 60].map(gear);
const own: StageChoice[] = [{ kind: "gear" }];

function layouts(chosen: StageChoice[][]) {
  const onChange = vi.fn();
  const shown = onTheBench(
    <Layouts
      layouts={chosen}
      suggested={[{ layout: { stages: [{ kind: "belt" }] }, words: "toothed belt", line: null }]}
      pictures={chosen.map((stages) => ({ layout: { stages }, words: "gears", line: null }))}
      combinations={chosen.map(() => 1204)}
      parts={PARTS}
      onChange={onChange}
    />,
  );
  return { ...shown, onChange };
}

describe("layouts", () => {
  it("are taken and left by their pictures, with how many combinations they make", () => {
    const { onChange, container } = layouts([own]);
    expect(container.textContent).toContain("1\u202f204");
    fireEvent.click(screen.getByRole("button", { name: "toothed belt" }));
    expect(onChange).toHaveBeenLastCalledWith([own, [{ kind: "belt" }]]);
    fireEvent.click(screen.getByRole("button", { name: "gears" }));
    expect(onChange).toHaveBeenLastCalledWith([]);
  });

  it("are put together kind by kind", () => {
    const { onChange } = layouts([own]);
    for (const name of ["+ Gears", "+ Chain", "+ Belt", "Take the last away", "Use it"])
      fireEvent.click(screen.getByRole("button", { name }));
    expect(onChange).toHaveBeenLastCalledWith([own, [{ kind: "gear" }, { kind: "chain" }]]);
  });

  it("are narrowed by teeth and ratio", () => {
    const { onChange } = layouts([own]);
    fireEvent.click(screen.getByRole("button", { name: "narrow" }));
    const driver = screen.getByLabelText("driver teeth, stage 1");
    fireEvent.change(driver, { target: { value: "12-18" } });
    fireEvent.blur(driver);
    expect(onChange).toHaveBeenLastCalledWith([[{ kind: "gear", driver: ["g12", "g15", "g18"] }]]);
    const ratio = screen.getByLabelText("ratio, stage 1");
    fireEvent.change(ratio, { target: { value: "0.5-6" } });
    fireEvent.keyDown(ratio, { key: "Enter" });
    expect(onChange).toHaveBeenLastCalledWith([[{ kind: "gear", ratio: [0.5, 6] }]]);
  });

  it("show what they are narrowed to when they are opened again, and keep it when left", () => {
    const narrowed: StageChoice[] = [{ kind: "gear", driver: ["g12", "g18"], ratio: [2, 6] }];
    const { onChange } = layouts([narrowed]);
    fireEvent.click(screen.getByRole("button", { name: "narrow" }));
    const driver = screen.getByLabelText<HTMLInputElement>("driver teeth, stage 1");
    expect(driver.value).toBe("12 18");
    expect(screen.getByLabelText<HTMLInputElement>("ratio, stage 1").value).toBe("2-6");
    fireEvent.blur(driver);
    expect(onChange).toHaveBeenLastCalledWith([narrowed]);
  });
});

describe("choices", () => {
  it("take parts of the bin one by one, and leave the design its own where none is left", () => {
    const onChange = vi.fn();
    const wheel = { id: "w125", kind: "wheel", diameter: "125 mm", name: "the grippy one" };
    const heads = { ...NO_WISHES.heads, wheels: ["w125"] };
    onTheBench(<Choices wishes={{ ...NO_WISHES, heads }} parts={[...PARTS, wheel]} onChange={onChange} />);
    fireEvent.click(screen.getByRole("checkbox", { name: "w125" }));
    expect(onChange).toHaveBeenLastCalledWith({ heads: { ...heads, wheels: null } });
    fireEvent.change(screen.getByLabelText("Buy for at most"), { target: { value: "40" } });
    expect(onChange).toHaveBeenLastCalledWith({ price: "40" });
    fireEvent.click(screen.getByLabelText("only what is owned"));
    expect(onChange).toHaveBeenLastCalledWith({ ownedOnly: true });
  });
});

describe("the question turned round", () => {
  it("begins with the first target, and asks the server with units", async () => {
    const refused = { error: { detail: "no" }, response: new Response("{}", { status: 400 }) };
    const ask = vi.spyOn(api, "POST").mockResolvedValue(refused as never);
    const unknown = { key: "mass", words: "mass of the vehicle", dimension: "mass", path: "" };
    onTheBench(<TurnedRound unknowns={[unknown]} />);
    const value = screen.getByLabelText<HTMLInputElement>("Value");
    expect(value.value).not.toBe("");
    fireEvent.change(value, { target: { value: "5" } });
    fireEvent.click(screen.getByRole("button", { name: "Solve" }));
    await vi.waitFor(() => expect(ask).toHaveBeenCalled());
    const target = { measure: "top_speed", at_least: "5 m/s" };
    const body = expect.objectContaining({ unknown: "mass", path: "", target });
    expect(ask).toHaveBeenCalledWith(expect.any(String), expect.objectContaining({ body }));
    expect((await screen.findByRole("alert")).textContent).toBe("no");
  });
});
