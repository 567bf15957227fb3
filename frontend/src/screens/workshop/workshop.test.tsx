import { fireEvent, screen, waitFor, within } from "@testing-library/react";
import { describe, expect, it, vi } from "vitest";
import type { Member, Role } from "../../api/client";
import { onAScreen, press } from "../../fixtures";
import { Refuses, serving } from "../../fixtures/server";
import { Join } from "./Join";
import { Members } from "./Members";

const MEMBERS: Member[] = [
  { id: 1, username: "tester", role: "owner" },
  { id: 2, username: "fen", role: "viewer" },
];
const USAGE = [
  { what: "vehicles", used: 390, most: 400, near: true },
  { what: "designs and their revisions", unit: "bytes", used: 120_000, most: 400_000_000, near: false },
];

const COMING = {
  id: "a",
  direction: "in",
  name: "shed.zip",
  state: "coming",
  size: 5,
  piece: 3,
  missing: [0, 1],
  done: 0,
  steps: 0,
  workshop: null,
  stays: [],
  faults: [],
};

/** "Who works here", as somebody with this role sees it. */
function workshop(role: Role, answers: Record<string, unknown> = {}) {
  const at = "/api/workshops/{workshop}/";
  const calls = serving({
    [`GET ${at}`]: { id: "w", name: "Tidal Shed", role, closed_at: null },
    [`GET ${at}members/`]: MEMBERS,
    [`GET ${at}invitations/`]: [],
    [`GET ${at}tokens/`]: [],
    [`GET ${at}usage/`]: USAGE,
    "GET /api/reach/": { addresses: [], qr: "", local: true, fingerprint: "" },
    "GET /api/workshops/": [],
    ...answers,
  });
  onAScreen(<Members />, "/workshops/w", "/workshops/:workshop");
  return calls;
}

const row = async (name: string) =>
  within((await screen.findByLabelText(`Role of ${name}`)).closest("[data-member]") as HTMLElement);

describe("who works in a workshop", () => {
  it("is told to an editor, with nothing to change", async () => {
    workshop("editor");
    expect(await screen.findByText("viewer (may look)")).toBeTruthy();
    expect(screen.queryByText("Invite somebody")).toBeNull();
    expect(screen.queryByText("Instruments")).toBeNull();
    expect(screen.queryByLabelText("Name of the workshop to close")).toBeNull();
  });

  it("is changed by an owner: another role, and nobody is removed by one press", async () => {
    const calls = workshop("owner", {
      "PATCH /api/workshops/{workshop}/members/{member}/": undefined,
      "DELETE /api/workshops/{workshop}/members/{member}/": undefined,
    });
    fireEvent.change(await screen.findByLabelText("Role of fen"), { target: { value: "editor" } });
    fireEvent.click(await screen.findByLabelText("More for fen"));
    await press("Remove");
    expect(calls).toHaveLength(1);
    await press("Yes: fen sees it no more");
    expect(calls).toMatchObject([
      {
        what: "PATCH /api/workshops/{workshop}/members/{member}/",
        path: { member: 2 },
        body: { role: "editor" },
      },
      { what: "DELETE /api/workshops/{workshop}/members/{member}/", path: { workshop: "w", member: 2 } },
    ]);
  });

  it("has nothing to remove oneself by: that is leaving", async () => {
    workshop("owner");
    expect((await row("tester")).queryByLabelText("More for tester")).toBeNull();
    expect((await row("tester")).getByText("(you)")).toBeTruthy();
  });

  it("says in the server's words why a role stays", async () => {
    const words = "A workshop needs an owner: make somebody else one first, or close the workshop.";
    workshop("owner", {
      "PATCH /api/workshops/{workshop}/members/{member}/": new Refuses({ detail: words }),
    });
    fireEvent.change(await screen.findByLabelText("Role of tester"), { target: { value: "viewer" } });
    expect((await screen.findByRole("alert")).textContent).toBe(words);
    expect((screen.getByLabelText("Role of tester") as HTMLSelectElement).value).toBe("owner");
  });

  it("makes a link for who forgot their password, told once", async () => {
    workshop("owner", { "POST /api/workshops/{workshop}/members/{member}/reset/": { code: "c-o-d-e" } });
    fireEvent.click(await screen.findByLabelText("More for fen"));
    await press("They forgot their password");
    const link = await screen.findByLabelText("Link for a new password of fen");
    expect((link as HTMLInputElement).value).toBe(`${window.location.origin}/reset#c-o-d-e`);
  });
});

describe("asking somebody to join", () => {
  const INVITATION = {
    id: "i",
    username: "",
    role: "editor",
    expires_at: "2026-12-12T00:00:00Z",
    code: "k-e-y",
  };

  it("makes a link with the role that was chosen", async () => {
    const calls = workshop("owner", { "POST /api/workshops/{workshop}/invitations/": INVITATION });
    fireEvent.change(await screen.findByLabelText("Role to give"), { target: { value: "viewer" } });
    await press("Make a link");
    expect(((await screen.findByLabelText("Link to join")) as HTMLInputElement).value).toContain(
      "/join#k-e-y",
    );
    expect(calls[0]?.body).toEqual({ username: "", role: "viewer" });
  });

  it("keeps the name that nobody has, and says so", async () => {
    const refusal = { detail: 'There is no account named "fenn".' };
    workshop("owner", { "POST /api/workshops/{workshop}/invitations/": new Refuses(refusal) });
    const name = await screen.findByLabelText("Name of an account to ask");
    fireEvent.change(name, { target: { value: " fenn " } });
    await press("Ask them");
    expect((await screen.findByRole("alert")).textContent).toBe(refusal.detail);
    expect((name as HTMLInputElement).value).toBe(" fenn ");
  });

  it("lists what is out, to be taken back", async () => {
    const calls = workshop("owner", {
      "GET /api/workshops/{workshop}/invitations/": [
        INVITATION,
        { ...INVITATION, id: "j", username: "reed" },
      ],
      "DELETE /api/workshops/{workshop}/invitations/{invitation}/": undefined,
    });
    const reply = (await screen.findByText(/reed is asked/)).closest("[data-invitation]") as HTMLElement;
    expect(screen.getByText(/A link is out/)).toBeTruthy();
    fireEvent.click(within(reply).getByText("Take back"));
    await waitFor(() => expect(calls[0]?.path).toEqual({ workshop: "w", invitation: "j" }));
  });
});

describe("instruments", () => {
  it("get a token that is told once, and show how often it was used", async () => {
    const calls = workshop("owner", {
      "GET /api/workshops/{workshop}/tokens/": [
        { id: "t", name: "gates", uses: 2, used_at: "2026-11-30T06:38:00Z" },
        { id: "u", name: "scale", uses: 0, used_at: null },
      ],
      "POST /api/workshops/{workshop}/tokens/": { id: "x", secret: "ydro_secret" },
      "DELETE /api/workshops/{workshop}/tokens/{token}/": undefined,
    });
    expect(await screen.findByText(/^2 times, last/)).toBeTruthy();
    expect(screen.getByText("not used yet")).toBeTruthy();
    const name = screen.getByLabelText("What the instrument is called");
    fireEvent.change(name, { target: { value: "counter" } });
    await press("Make a token");
    expect(await screen.findByText("ydro_secret")).toBeTruthy();
    expect((name as HTMLInputElement).value).toBe("");
    fireEvent.click(screen.getAllByText("Take back")[1] as HTMLElement);
    await waitFor(() => expect(calls).toHaveLength(2));
    expect(calls.map((call) => call.body ?? call.path)).toEqual([
      { name: "counter" },
      { workshop: "w", token: "u" },
    ]);
  });
});

describe("where a phone finds it", () => {
  const reach = (told: object) =>
    workshop("editor", {
      "GET /api/reach/": {
        addresses: ["http://10.0.0.7:8000/"],
        qr: "data:,",
        local: true,
        fingerprint: "",
        ...told,
      },
    });

  it("is told with a warning where everybody in the network can read along", async () => {
    reach({ addresses: ["http://10.0.0.7:8000/", "http://10.1.0.7:8000/"] });
    expect(await screen.findByAltText("QR code of http://10.0.0.7:8000/")).toBeTruthy();
    expect(screen.getByText("or http://10.1.0.7:8000/")).toBeTruthy();
    expect(screen.getByText(/others in this network can read along/)).toBeTruthy();
  });

  it("has the fingerprint to compare where the certificate was made here", async () => {
    reach({ addresses: ["https://10.0.0.7:8000/"], fingerprint: "AB:CD" });
    expect(await screen.findByText("AB:CD")).toBeTruthy();
    expect(screen.queryByText(/read along/)).toBeNull();
  });

  it("says nothing of networks on a host that everybody finds", async () => {
    reach({ addresses: ["https://gears.example.org/"], local: false });
    expect(await screen.findByText("https://gears.example.org/")).toBeTruthy();
    expect(screen.queryByText(/network/)).toBeNull();
  });

  it("says how to let phones in where this computer alone is served", async () => {
    workshop("viewer");
    expect(await screen.findByText("./ydro start --lan")).toBeTruthy();
  });
});

describe("room and going", () => {
  it("tells how much is used, in megabytes where it is bytes", async () => {
    workshop("viewer");
    expect(await screen.findByText("390 of 400")).toBeTruthy();
    expect(screen.getByText("0.12 of 400 MB")).toBeTruthy();
  });

  it("is left after a second press, to the bench", async () => {
    const calls = workshop("editor", { "POST /api/workshops/{workshop}/leaving/": undefined });
    await press("Leave this workshop");
    expect(calls).toEqual([]);
    await press(/^Yes: leave/);
    expect(await screen.findByText("at /")).toBeTruthy();
  });

  it("is closed by its name", async () => {
    const words = "That is not its name.";
    const calls = workshop("owner", {
      "POST /api/workshops/{workshop}/closing/": new Refuses({ detail: words }),
    });
    fireEvent.change(await screen.findByLabelText("Name of the workshop to close"), {
      target: { value: "Shed" },
    });
    await press("Close the workshop");
    expect((await screen.findByRole("alert")).textContent).toBe(words);
    expect(calls[0]?.body).toEqual({ name: "Shed" });
  });

  it("opens an archive that is sent in pieces, and goes on where it stopped", async () => {
    const states = [
      { ...COMING, missing: [0, 1] },
      { ...COMING, missing: [1] },
      { ...COMING, state: "done", workshop: "n" },
    ];
    let broken = true;
    const calls = workshop("owner", {
      "POST /api/archives/": COMING,
      "GET /api/archives/{archive}/": () => states.shift(),
      "PUT /api/archives/{archive}/pieces/{number}/": ({ path }: { path: { number: number } }) =>
        broken && path.number === 1 ? new Refuses({ detail: "There is no room." }) : undefined,
      "PATCH /api/archives/{archive}/": { ...COMING, state: "waiting" },
    });
    const input = (await screen.findByLabelText("Archive file")) as HTMLInputElement;
    const file = new File(["zippy"], "shed.zip");
    fireEvent.change(input, { target: { files: [file] } });
    expect((await screen.findByRole("alert")).textContent).toBe("There is no room.");
    expect(input.value).toBe("");
    broken = false;
    await press("Go on");
    expect(await screen.findByText("at /?workshop=n")).toBeTruthy();
    const sent = calls.filter((call) => call.what.startsWith("PUT")).map((call) => call.path.number);
    expect(sent).toEqual([0, 1, 1]);
  });

  it("tells why an archive came to nothing, and asks for the file again after a reload", async () => {
    const fault = { path: "a.json", problem: "is no design", remedy: "save the archive again" };
    sessionStorage.setItem("ydrometer-archive-in", "a");
    const states = [
      { ...COMING, missing: [1] },
      { ...COMING, missing: [1] },
      { ...COMING, state: "failed", faults: [fault] },
    ];
    const calls = workshop("owner", {
      "GET /api/archives/{archive}/": () => states.shift(),
      "PUT /api/archives/{archive}/pieces/{number}/": undefined,
      "PATCH /api/archives/{archive}/": { ...COMING, state: "waiting" },
    });
    expect(await screen.findByText("shed.zip has not come whole: choose it again to go on")).toBeTruthy();
    fireEvent.change(screen.getByLabelText("Archive file"), {
      target: { files: [new File(["zippy"], "shed.zip")] },
    });
    expect((await screen.findByRole("alert")).textContent).toBe(
      "It came to nothing. a.json: is no design, save the archive again",
    );
    expect(calls.map((call) => call.path.number)).toEqual([1, undefined]);
    expect(sessionStorage.getItem("ydrometer-archive-in")).toBeNull();
  });

  it("saves the archive piece by piece, with what stays behind, or ends that", async () => {
    const click = vi.spyOn(HTMLAnchorElement.prototype, "click").mockImplementation(() => undefined);
    URL.createObjectURL = vi.fn(() => "blob:");
    URL.revokeObjectURL = vi.fn();
    const out = { ...COMING, direction: "out", state: "waiting", stays: ["Searches."] };
    let state: Record<string, unknown> = { ...out, state: "working", done: 1, steps: 3 };
    const calls = workshop("viewer", {
      "POST /api/workshops/{workshop}/archives/": out,
      "GET /api/archives/{archive}/": () => state,
      "GET /api/archives/{archive}/pieces/{number}/": new Blob(["abc"]),
      "PATCH /api/archives/{archive}/": { ...out, state: "cancelled" },
    });
    await press("Save the archive");
    expect(await screen.findByText("Writing: 1 of 3")).toBeTruthy();
    state = { ...out, state: "done", size: 5 };
    expect(await screen.findByText("shed.zip, 1 kB, is saved.", undefined, { timeout: 10_000 })).toBeTruthy();
    state = { ...out, state: "waiting" };
    expect(click).toHaveBeenCalledOnce();
    expect(screen.getByText("Searches.")).toBeTruthy();
    await press("Save the archive");
    await press("Cancel");
    expect(calls.at(-1)?.body).toEqual({ do: "cancel" });
    await waitFor(() => expect(screen.queryByRole("progressbar")).toBeNull());
  }, 20_000);

  it("is told as missing to who is not in it", async () => {
    workshop("viewer", { "GET /api/workshops/{workshop}/": new Refuses({ detail: "no" }, 404) });
    expect(await screen.findByText("There is no such workshop")).toBeTruthy();
  });
});

describe("a link to join", () => {
  const about = { workshop: "Tidal Shed", author: "fen", role: "viewer" };

  it("says who invites as what, and joins by one button, asking about its own code alone", async () => {
    const calls = serving({ "POST /api/joining/": about });
    onAScreen(<Join />, "/join#k-e-y", "/join");
    expect(await screen.findByText(/fen invites you as viewer/)).toBeTruthy();
    await press("Join");
    expect(await screen.findByText("at /")).toBeTruthy();
    expect(calls.map((call) => call.body)).toEqual([
      { code: "k-e-y", accept: false },
      { code: "k-e-y", accept: true },
    ]);
  });

  it("that stands no more says so", async () => {
    serving({ "POST /api/joining/": new Refuses({ detail: "It was used already." }) });
    onAScreen(<Join />, "/join#k-e-y", "/join");
    expect(await screen.findByText("This link does not stand")).toBeTruthy();
    expect(screen.getByText("It was used already.")).toBeTruthy();
  });
});
