import { fireEvent, screen } from "@testing-library/react";
import { describe, expect, it, vi } from "vitest";
import type { Ask, Idea, Judgement, Working } from "../../api/client";
import { ON_PLATE, onTheBench, PLAIN } from "../../fixtures";
import { EXERCISE, NUMBER } from "../../fixtures/exercises";
import { Answers, isWhole, picking } from "./Answers";
import { keyOf } from "./ExerciseDrawing";
import { ExerciseView } from "./ExerciseView";
import { anotherKind, following, wentBy } from "./went";

const PICKS: Ask = { ...NUMBER, kind: "picks", places: ["driver", "driven wheel"], bag: [12, 20, 36] };
const CHOICE: Ask = {
  ...NUMBER,
  kind: "choice",
  choices: [
    { key: "A", words: "pair A", hole: null },
    { key: "B", words: "pair B", hole: null },
  ],
};
const SHEET: Working = {
  measure: "on_holes",
  dimension: "ratio",
  value: null,
  text: "",
  formula: "as far apart as the pitch circles ask",
  source: "",
  inputs: [],
  table: [],
  steps: [],
  plain: null,
  parts: [],
};

describe("how it went", () => {
  it("is well, with help, or missed", () => {
    expect(wentBy({ misses: 0, hints: 0, shown: false })).toBe("well");
    expect(wentBy({ misses: 1, hints: 0, shown: false })).toBe("with help");
    expect(wentBy({ misses: 0, hints: 2, shown: false })).toBe("with help");
    expect(wentBy({ misses: 3, hints: 0, shown: false })).toBe("missed");
    expect(wentBy({ misses: 0, hints: 0, shown: true })).toBe("missed");
  });

  it("leads on to the next idea once one went well, and round to the first", () => {
    const ideas = ["ratio", "idlers"].map((idea) => ({ idea }) as Idea);
    expect(following(ideas, "ratio", "well")).toBe("idlers");
    expect(following(ideas, "ratio", "missed")).toBe("ratio");
    expect(following(ideas, "idlers", "well")).toBe("ratio");
  });

  it("takes another kind where there is one", () => {
    expect(anotherKind(["a", "b"], "a")).toBe("b");
    expect(anotherKind(["a"], "a")).toBe("a");
  });
});

describe("answers", () => {
  it("picks wheels into places, each once, and takes them back", () => {
    expect(picking(PICKS, "", 12)).toEqual([12]);
    expect(picking(PICKS, [12], 36)).toEqual([12, 36]);
    expect(picking(PICKS, [12, 36], 20)).toEqual([12, 36]);
    expect(picking(PICKS, [12, 36], 12)).toEqual([36]);
    expect([isWhole(PICKS, [12]), isWhole(PICKS, [12, 36]), isWhole(NUMBER, " ")]).toEqual([
      false,
      true,
      false,
    ]);
  });

  it("takes a choice by its number key", () => {
    const onChange = vi.fn();
    onTheBench(<Answers ask={CHOICE} given="" disabled={false} onChange={onChange} />);
    fireEvent.keyDown(window, { key: "2" });
    fireEvent.keyDown(window, { key: "9" });
    expect(onChange.mock.calls).toEqual([["B"]]);
  });
});

describe("an exercise", () => {
  const said = (verdict: Judgement["verdict"], mistake = ""): Judgement => ({
    verdict,
    mistake,
    words: "so.",
  });

  it("tells a mistake by its name, gives hints, and is over once it is right", async () => {
    const judge = vi
      .fn()
      .mockResolvedValueOnce(said("mistake", "pi forgotten"))
      .mockResolvedValue(said("right"));
    const onOver = vi.fn();
    onTheBench(<ExerciseView exercise={EXERCISE} judge={judge} onOver={onOver} after={<span>Next</span>} />);
    fireEvent.change(screen.getByLabelText(/Your answer/), { target: { value: "2" } });
    fireEvent.click(screen.getByText("Check it"));
    expect(await screen.findByText("pi forgotten:")).toBeTruthy();
    fireEvent.click(screen.getByText("A hint"));
    fireEvent.click(screen.getByText("Another hint"));
    expect(screen.getByText("two")).toBeTruthy();
    fireEvent.change(screen.getByLabelText(/Your answer/), { target: { value: "7 m/s" } });
    fireEvent.click(screen.getByText("Check it"));
    expect(await screen.findByText("Next")).toBeTruthy();
    expect(onOver.mock.calls).toEqual([["with help"]]);
    expect(judge.mock.calls).toEqual([["2"], ["7 m/s"]]);
  });

  it("takes an arrow around the wheel that is asked about, in the drawing", async () => {
    const [wheel] = PLAIN.view.line.rows.flatMap((row) => row.wheels);
    const ask: Ask = {
      ...CHOICE,
      kind: "arrow",
      around: wheel ? keyOf(wheel) : "",
      choices: ["clockwise", "anticlockwise"].map((key) => ({ key, words: key, hole: null })),
    };
    const judge = vi.fn().mockResolvedValue(said("right"));
    onTheBench(<ExerciseView exercise={{ ...EXERCISE, ask }} judge={judge} onOver={vi.fn()} after={null} />);
    fireEvent.click(screen.getByLabelText("the last wheel turns anticlockwise"));
    expect(screen.getByRole("radio", { name: /anticlockwise/ }).getAttribute("aria-checked")).toBe("true");
    fireEvent.click(screen.getByText("Check it"));
    await screen.findByText("so.");
    expect(judge.mock.calls).toEqual([["anticlockwise"]]);
    expect(screen.queryByLabelText("the last wheel turns anticlockwise")).toBeNull();
  });

  it("takes a hole of the plate, and shows the whole plate with the answer", async () => {
    const { plan } = ON_PLATE;
    const ask: Ask = {
      ...CHOICE,
      choices: [1, 2].map((k) => ({
        key: `${k} 0`,
        words: `${k} across`,
        hole: { x: 0.01 * k, y: 0 },
      })),
    };
    const exercise = { ...EXERCISE, ask, plate: { ...plan, wheels: [], shafts: [] } };
    const solve = vi.fn().mockResolvedValue({
      words: "2 across",
      key: "2 0",
      plate: plan,
      working: SHEET,
    });
    const judge = vi.fn().mockResolvedValue(said("right"));
    const { container } = onTheBench(
      <ExerciseView exercise={exercise} judge={judge} solve={solve} onOver={vi.fn()} after={null} />,
    );
    fireEvent.keyDown(screen.getByLabelText("hole 2: 2 across"), { key: "Enter" });
    fireEvent.click(screen.getByText("Check it"));
    await screen.findByText("so.");
    expect(judge.mock.calls).toEqual([["2 0"]]);
    expect(container.querySelectorAll("[data-hole]")).toHaveLength(2);
    expect(container.querySelectorAll("[data-exercise-plate] text").length).toBeGreaterThan(2);
  });

  it("keeps what was typed where the server refuses it", async () => {
    const judge = vi.fn().mockRejectedValue(new Error("no number"));
    onTheBench(<ExerciseView exercise={EXERCISE} judge={judge} onOver={vi.fn()} after={null} />);
    const field = screen.getByLabelText(/Your answer/) as HTMLInputElement;
    fireEvent.change(field, { target: { value: "fast" } });
    fireEvent.click(screen.getByText("Check it"));
    expect((await screen.findByRole("alert")).textContent).toBe("no number");
    expect(field.value).toBe("fast");
  });
});
