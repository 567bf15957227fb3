import { fireEvent, screen, waitFor } from "@testing-library/react";
import { describe, expect, it, vi } from "vitest";
import type { VehicleCard } from "../../api/client";
import { DOCUMENTS, fileOf, onAScreen, PLAIN, press } from "../../fixtures";
import { Refuses, serving } from "../../fixtures/server";
import { keptKey, keptOf, writeKept } from "../../ui/kept";
import { Bench } from "./Bench";
import { ShareDialog } from "./ShareDialog";

const vehicle = (id: string, name: string, more: Partial<VehicleCard> = {}) =>
  ({
    id,
    name,
    workshop: "w",
    document: DOCUMENTS.plain,
    put_away: false,
    gone_at: null,
    changed_at: "2026-11-28T10:00:00Z",
    ...more,
  }) as unknown as VehicleCard;

const SHED = { id: "w", name: "Tidal Shed", role: "owner", closed_at: null };
const OTHER = { ...SHED, id: "o", name: "Other Shed", role: "viewer" };
const SESSION = { username: "tester", demo: false, visitor: false, mail: false };

const CARD = { line: PLAIN.view.line, ratio: 4, gauges: PLAIN.gauges };

function bench(answers: Record<string, unknown> = {}, at = "/") {
  const calls = serving({
    "GET /api/workshops/": [SHED, OTHER],
    "GET /api/invitations/": [],
    "GET /api/session/": SESSION,
    "GET /api/starts/": { starts: [], sizes: [], footings: [], cells: [] },
    "GET /api/workshops/{workshop}/vehicles/": [vehicle("v", "Knot")],
    "GET /api/workshops/{workshop}/cards/": [{ vehicle: "v", card: CARD }],
    "GET /api/workshops/{workshop}/runs/": [],
    ...answers,
  });
  onAScreen(<Bench />, at, "/");
  return calls;
}

describe("the bench", () => {
  it("shows each vehicle with how its targets stand", async () => {
    bench();
    expect((await screen.findByRole("link", { name: "Knot" })).getAttribute("href")).toBe("/vehicles/v/line");
    const targets = PLAIN.gauges.filter((gauge) => gauge.target !== null);
    const card = screen.getByText("Knot").closest("article") as HTMLElement;
    await waitFor(() => expect(card.querySelectorAll("li")).toHaveLength(targets.length));
  });

  it("says of a design that cannot be read why", async () => {
    bench({
      "GET /api/workshops/{workshop}/cards/": [{ vehicle: "v", card: null, trouble: "mass: is missing" }],
    });
    expect(await screen.findByText("This design cannot be read: mass: is missing")).toBeTruthy();
  });

  it("stands in the workshop that the address names, and remembers another one", async () => {
    const calls = bench({ "PATCH /api/session/": SESSION }, "/?workshop=o");
    expect(await screen.findByRole("heading", { name: "Other Shed" })).toBeTruthy();
    fireEvent.change(screen.getByLabelText("Workshop"), { target: { value: "w" } });
    expect(await screen.findByRole("heading", { name: "Tidal Shed" })).toBeTruthy();
    expect(calls[0]?.body).toEqual({ workshop: "w" });
  });

  it("lets a viewer put nothing on it", async () => {
    bench({}, "/?workshop=o");
    await screen.findByText("Knot");
    expect(screen.queryByText("Open a design file")).toBeNull();
  });

  it("of nobody's workshop makes one, and says why it could not", async () => {
    const words = "You have as many workshops as an account may have.";
    bench({ "GET /api/workshops/": [], "POST /api/workshops/": new Refuses({ detail: words }) });
    await press("Make one");
    expect((await screen.findByRole("alert")).textContent).toBe(words);
  });
});

describe("the drawer", () => {
  const AWAY = vehicle("p", "Old Knot", { put_away: true });
  const drawn = (more: Partial<VehicleCard>, answers: Record<string, unknown>) =>
    bench({ "GET /api/workshops/{workshop}/vehicles/": [{ ...AWAY, ...more }], ...answers });

  it("deletes after a month, and takes back", async () => {
    const calls = drawn({}, { "PATCH /api/vehicles/{vehicle}/": AWAY });
    fireEvent.click(await screen.findByLabelText("Delete: Old Knot"));
    await waitFor(() => expect(calls[0]).toMatchObject({ path: { vehicle: "p" }, body: { delete: true } }));
    fireEvent.click(screen.getByLabelText("Take back: Old Knot"));
    await waitFor(() => expect(calls[1]?.body).toEqual({ put_away: false }));
  });

  it("says until when, and deletes nothing twice", async () => {
    drawn({ gone_at: "2026-12-28T10:00:00Z" }, {});
    expect(await screen.findByText("goes for good on Dec 28, 2026")).toBeTruthy();
    expect(screen.queryByLabelText("Delete: Old Knot")).toBeNull();
  });

  it("says why something stays where it is", async () => {
    drawn(
      {},
      { "PATCH /api/vehicles/{vehicle}/": new Refuses({ detail: "You may look, not change." }, 403) },
    );
    fireEvent.click(await screen.findByLabelText("Take back: Old Knot"));
    expect((await screen.findByRole("alert")).textContent).toBe("You may look, not change.");
  });
});

describe("a design file", () => {
  const pick = async (text: string) =>
    fireEvent.change(await screen.findByLabelText("Design file"), {
      target: { files: [fileOf("knot.json", text)] },
    });

  it("is opened on the bench", async () => {
    const calls = bench({ "POST /api/workshops/{workshop}/vehicles/": vehicle("n", "New") });
    await pick(JSON.stringify({ format: "ydrometer-design" }));
    expect(await screen.findByText("at /vehicles/n/brief")).toBeTruthy();
    expect(calls[0]?.body).toEqual({ document: { format: "ydrometer-design" } });
  });

  it("that is none is told, and each of its faults with its place", async () => {
    const faults = [{ path: "vehicle.mass", problem: "is missing", remedy: "say it as 4 kg" }];
    bench({ "POST /api/workshops/{workshop}/vehicles/": new Refuses({ detail: "no", faults }) });
    await pick("{half");
    expect((await screen.findByRole("alert")).textContent).toBe(
      "knot.json is not JSON: choose a design file.",
    );
    await pick("{}");
    expect(await screen.findByText("vehicle.mass: is missing, say it as 4 kg")).toBeTruthy();
  });
});

describe("who asks one to join", () => {
  const ASKED = { id: "i", author: "fen", workshop: "Reed Shed", role: "editor" };

  it("is answered by one press", async () => {
    const calls = bench({
      "GET /api/invitations/": [ASKED],
      "POST /api/invitations/{invitation}/": { workshop: "Reed Shed" },
    });
    await press("Decline");
    await waitFor(() =>
      expect(calls[0]).toMatchObject({ path: { invitation: "i" }, body: { accept: false } }),
    );
  });

  it("and has taken it back meanwhile is told", async () => {
    bench({
      "GET /api/invitations/": [ASKED],
      "POST /api/invitations/{invitation}/": new Refuses({ detail: "It was taken back." }, 404),
    });
    await press("Join");
    expect((await screen.findByRole("alert")).textContent).toBe("It was taken back.");
  });
});

describe("showing a design to somebody", () => {
  const LINK = {
    id: "s",
    expires_at: "2026-12-07T00:00:00Z",
    made_at: "2026-11-30T00:00:00Z",
    author: "fen",
    opened: 1,
  };
  const dialog = (answers: Record<string, unknown>) => {
    const calls = serving({ "GET /api/vehicles/{vehicle}/shares/": [LINK], ...answers });
    onAScreen(<ShareDialog vehicle={vehicle("v", "Knot")} onClose={() => undefined} />);
    return calls;
  };

  it("makes a link for as long as was chosen", async () => {
    const calls = dialog({ "POST /api/vehicles/{vehicle}/shares/": { code: "c-o-d-e" } });
    fireEvent.change(await screen.findByLabelText("For"), { target: { value: "30" } });
    await press("Make a link");
    const link = (await screen.findByLabelText("Link to the design")) as HTMLInputElement;
    expect(link.value).toBe(`${window.location.origin}/shared#c-o-d-e`);
    expect(calls[0]?.body).toEqual({ days: 30 });
  });

  it("tells how often each was opened, and takes it back", async () => {
    const calls = dialog({ "DELETE /api/vehicles/{vehicle}/shares/{share}/": undefined });
    expect(await screen.findByText(/opened 1 time$/)).toBeTruthy();
    await press("Take back");
    await waitFor(() => expect(calls[0]?.path).toEqual({ vehicle: "v", share: "s" }));
  });
});

describe("what waits on the device", () => {
  /** Looked at again in a moment, as the page does in two seconds. */
  function soon() {
    const every = window.setInterval.bind(window);
    vi.spyOn(window, "setInterval").mockImplementation(((look: () => void) => every(look, 20)) as never);
  }

  it("is told with the way to where it is sent from, and no longer once it is sent", async () => {
    writeKept(keptKey("runs", "tester", "v"), [{ id: "1" }]);
    soon();
    bench();
    const way = await screen.findByRole("link", { name: "1 run" });
    expect(way.getAttribute("href")).toBe("/vehicles/v/runs");
    expect(way.closest("li")?.textContent).toContain("Knot: ");
    writeKept(keptKey("runs", "tester", "v"), null);
    await waitFor(() => expect(screen.queryByText(/Kept on this device/)).toBeNull());
  });

  it("can be saved as a file and dropped where its vehicle is not one's own any more", async () => {
    writeKept(keptKey("build", "tester", "gone"), [{ id: "1" }, { id: "2" }]);
    writeKept(keptKey("draft", "tester", "gone", "tab"), { document: DOCUMENTS.plain });
    const spy = vi.fn(() => "blob:design");
    vi.stubGlobal("URL", Object.assign(URL, { createObjectURL: spy, revokeObjectURL: vi.fn() }));
    vi.spyOn(HTMLAnchorElement.prototype, "click").mockImplementation(() => undefined);
    soon();
    bench();
    await press("Save it as a file");
    expect(spy).toHaveBeenCalledOnce();
    await press("Drop it");
    expect(screen.getByRole("link", { name: "2 ticks" })).toBeTruthy();
    await press("Drop it for good");
    await waitFor(() => expect(keptOf("tester")).toEqual([]));
  });
});
