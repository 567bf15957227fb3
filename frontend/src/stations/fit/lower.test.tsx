import { fireEvent, screen, waitFor } from "@testing-library/react";
import { beforeEach, describe, expect, it, vi } from "vitest";
import { api } from "../../api/client";
import { withValue } from "../../document/document";
import { FIRST_ADAPTER, mountingOf, shaftOf } from "../../document/mounting";
import { DOCUMENTS, MOUNTED, ON_PLATE, onTheBench } from "../../fixtures";
import { Adapters } from "./Adapters";
import { Numbers } from "./Numbers";
import { Placings } from "./Placings";
import { PlateFields } from "./PlateFields";
import { Templates } from "./Templates";

const AXLE = "drive.stages[0]";
const answered = vi.fn();

interface Sent {
  params: { path: object };
  body: object;
}

beforeEach(() => {
  answered.mockReset();
  vi.spyOn(api, "POST").mockImplementation((async (address: string, { params, body }: Sent) =>
    answered(address, { ...params.path, ...body })) as never);
  vi.spyOn(HTMLAnchorElement.prototype, "click").mockReturnValue();
});

/** As the client hands an answer on. */
const json = (value: unknown, status = 200) => ({
  [status < 400 ? "data" : "error"]: value,
  response: new Response(null, { status }),
});

const onThePlate = (shown: React.ReactNode) => onTheBench(shown, {}, DOCUMENTS.mounted, MOUNTED);

describe("ways to place the shafts", () => {
  const way = {
    at: { [AXLE]: [0.252, 0.048] },
    lengths: { [AXLE]: "80 teeth" },
    error: 0.0003,
    room: null,
    size: 0.2,
  };

  it("are listed with their error, and one key places all", async () => {
    answered.mockReturnValue(json({ ways: [way], count: 1, more: false, helps: [] }));
    const rendered = onThePlate(<Placings behind="" />);
    fireEvent.click(screen.getByRole("button", { name: "Find every way to place the shafts" }));
    await screen.findByText("1 of 1");
    expect(screen.getByText("0.3 mm")).toBeTruthy();
    fireEvent.click(screen.getByRole("button", { name: "Place so" }));
    expect(shaftOf(rendered.document(), AXLE)?.at).toEqual(["252 mm", "48 mm"]);
    expect(rendered.document().drive.stages?.[0]?.belt_teeth).toBe(80);
  });

  it("say what would help where there is none, and take it", async () => {
    const help = {
      text: "57 teeth in place of the 56-tooth gear",
      extra: 0,
      way,
      teeth: { "drive.branches[0].stages[0].driven_teeth": 57 },
    };
    answered.mockReturnValue(
      json({
        ways: [],
        count: 0,
        more: false,
        helps: [
          help,
          { text: "a slot", extra: 0.004, way, teeth: {}, idler: null, slot: null, tolerance: null },
        ],
      }),
    );
    const made = onThePlate(<Placings behind="" />);
    fireEvent.click(screen.getByRole("button", { name: "Find every way to place the shafts" }));
    await screen.findByText("No way places them all.");
    const takes = screen.getAllByRole("button", { name: "Take that" });
    expect(takes).toHaveLength(2);
    fireEvent.click(takes[0] as HTMLElement);
    expect(made.document().drive.branches[0]?.stages?.[0]?.driven_teeth).toBe(57);
  });

  it("say where more were left out, and can be cancelled", async () => {
    answered.mockReturnValueOnce(new Promise(() => {}));
    onThePlate(<Placings behind="" />);
    const find = screen.getByRole("button", { name: "Find every way to place the shafts" });
    fireEvent.click(find);
    fireEvent.click(await screen.findByRole("button", { name: "Looking … cancel" }));
    await vi.waitFor(() => expect(find).toHaveProperty("disabled", false));
    answered.mockReturnValue(json({ ways: [way], count: 1, more: true, helps: [] }));
    fireEvent.click(find);
    await screen.findByText("1 of more than 1");
  });

  it("tell what the server refused in its words", async () => {
    answered.mockReturnValue(json({ detail: "two shafts in slots are tied to each other" }, 400));
    onThePlate(<Placings behind="" />);
    fireEvent.click(screen.getByRole("button", { name: "Find every way to place the shafts" }));
    expect((await screen.findByRole("alert")).textContent).toContain("two shafts in slots");
  });
});

describe("templates", () => {
  it("are asked for of the plate, or of an adapter for the chosen shaft", async () => {
    vi.stubGlobal("URL", Object.assign(URL, { createObjectURL: () => "blob:x", revokeObjectURL: vi.fn() }));
    answered.mockReturnValue(
      json({ name: "plate.dxf", type: "application/dxf", holes: 60, sheets: 1, data: "MA==" }),
    );
    onThePlate(<Templates shaft={ON_PLATE.plan.shafts[0] ?? null} behind="" />);
    fireEvent.click(screen.getByRole("button", { name: "Save DXF" }));
    await waitFor(() => expect(answered).toHaveBeenCalledTimes(1));
    expect(answered.mock.calls[0]?.[1]).toMatchObject({ kind: "dxf", shaft: "", sheet: "a4" });
    fireEvent.change(screen.getByLabelText("template of"), { target: { value: "shaft" } });
    fireEvent.change(screen.getByLabelText("sheets"), { target: { value: "letter" } });
    fireEvent.click(screen.getByRole("button", { name: "Save PDF" }));
    await waitFor(() => expect(answered).toHaveBeenCalledTimes(2));
    expect(answered.mock.calls[1]?.[1]).toMatchObject({
      kind: "pdf",
      shaft: "drive.branches[0].source",
      sheet: "letter",
    });
  });

  it("say what is missing for them", async () => {
    answered.mockReturnValue(json({ detail: "give the hole in the plate" }, 400));
    onThePlate(<Templates shaft={null} behind="" />);
    fireEvent.click(screen.getByRole("button", { name: "Save SVG" }));
    expect((await screen.findByRole("alert")).textContent).toContain("give the hole");
    expect(screen.getByText(/measure the scale bar before you drill/)).toBeTruthy();
  });
});

describe("numbers for the hands", () => {
  it("stand first for the stage that is chosen, and take a tension", () => {
    const made = onThePlate(<Numbers fit={ON_PLATE} selected={{ path: AXLE, member: "driven" }} />);
    const heads = screen.getAllByRole("heading").map((head) => head.textContent);
    expect(heads[0]).toMatch(/belt/i);
    fireEvent.click(screen.getByRole("button", { name: /Say its tension/ }));
    expect(mountingOf(made.document()).loops).toEqual([{ stage: AXLE }]);
  });

  it("say so where nothing is tied", () => {
    onThePlate(<Numbers fit={{ ...ON_PLATE, settings: [] }} selected={null} />);
    expect(screen.getByText(/no pair of wheels on this plate yet/)).toBeTruthy();
  });
});

describe("plate and frame", () => {
  it("take another line of the frame, and give it up", () => {
    const made = onThePlate(<PlateFields behind="" />);
    fireEvent.click(screen.getByRole("button", { name: "Add a line of the frame" }));
    expect(mountingOf(made.document()).frame).toHaveLength(1);
    expect(screen.getByLabelText("holes across")).toHaveProperty("value", "26");
  });

  it("are said of the plate behind a stage where that is chosen", () => {
    const made = onThePlate(<PlateFields behind={AXLE} />);
    fireEvent.click(screen.getByRole("button", { name: "Add a line of the frame" }));
    fireEvent.click(screen.getByRole("button", { name: "Put it on a plate with a grid of holes" }));
    const { behind, frame } = mountingOf(made.document());
    expect(frame).toBeUndefined();
    expect(behind).toMatchObject([{ stage: AXLE, plate: { across: 40 }, frame: [{ name: "frame" }] }]);
  });
});

describe("adapters between flanges", () => {
  const made = [
    {
      name: "adapter",
      between: 0.022,
      plates: [
        { name: "plate of motor", outside: 0.035, thickness: 0.006, holes: [], spigot: 0 },
        { name: "plate of axle", outside: 0.035, thickness: 0.016, holes: [], spigot: 0 },
      ],
    },
  ];

  it("begin with a motor and an axle", () => {
    const bench = onThePlate(<Adapters made={[]} />);
    fireEvent.click(screen.getByRole("button", { name: "Add an adapter" }));
    expect(mountingOf(bench.document()).adapters?.[0]?.sides).toHaveLength(2);
  });

  it("take a second plate with its bolts and dowels, and go again", () => {
    const changed = withValue(DOCUMENTS.mounted, "fit.adapters", [FIRST_ADAPTER]);
    const bench = onTheBench(<Adapters made={made} />, {}, changed, MOUNTED);
    const first = () => mountingOf(bench.document()).adapters?.[0];
    expect(screen.getByText("22 mm")).toBeTruthy();
    fireEvent.change(screen.getByLabelText("plates"), { target: { value: "2" } });
    expect([first()?.plates, first()?.dowels]).toEqual([2, { count: 2, circle: "56 mm", hole: "4 mm" }]);
    fireEvent.change(screen.getByLabelText("plates"), { target: { value: "1" } });
    expect([first()?.plates, first()?.dowels]).toEqual([1, undefined]);
    fireEvent.click(screen.getByRole("button", { name: "Remove" }));
    expect(mountingOf(bench.document()).adapters).toHaveLength(0);
  });
});
