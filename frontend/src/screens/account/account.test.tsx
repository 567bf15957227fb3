import { fireEvent, screen, waitFor } from "@testing-library/react";
import { describe, expect, it, vi } from "vitest";
import { lost, useConnection } from "../../api/connection";
import { onAScreen, press } from "../../fixtures";
import { type Call, Refuses, serving } from "../../fixtures/server";
import { AccountPage } from "./AccountPage";
import NewPassword from "./NewPassword";
import { SignIn } from "./SignIn";
import { SignInAgain } from "./SignInAgain";

const SESSION = { username: "tester", demo: false, visitor: false, mail: true };
const DEVICES = [
  {
    id: "d1",
    device: "computer",
    address: "10.0.0.2",
    since: "2026-11-29T08:00:00Z",
    last_at: "",
    here: true,
  },
  { id: "d2", device: "phone", address: "10.0.0.3", since: "2026-11-28T08:00:00Z", last_at: "", here: false },
  {
    id: "d3",
    device: "tablet",
    address: "10.0.0.4",
    since: "2026-11-27T08:00:00Z",
    last_at: "",
    here: false,
  },
];

const type = (label: string, text: string) =>
  fireEvent.change(screen.getByLabelText(label), { target: { value: text } });
const field = (label: string) => screen.getByLabelText(label) as HTMLInputElement;
const bodies = (calls: Call[]) => calls.map((call) => [call.what, call.body]);

describe("signing in", () => {
  it("makes an account of the same fields", async () => {
    const calls = serving({ "POST /api/accounts/": SESSION });
    onAScreen(<SignIn demo={false} mail={false} />);
    await press("I am new here");
    type("Name", "fen");
    type("Password", "rivets-and-rope-7");
    await press("Make the account");
    await waitFor(() =>
      expect(bodies(calls)).toEqual([
        ["POST /api/accounts/", { username: "fen", password: "rivets-and-rope-7" }],
      ]),
    );
  });

  it("keeps what was typed where it is refused, and says at the field why", async () => {
    const refusal = { detail: "no", fields: { username: ["There is an account of that name."] } };
    serving({ "POST /api/accounts/sign-in/": new Refuses(refusal) });
    onAScreen(<SignIn demo={false} mail={false} />);
    type("Name", "fen");
    type("Password", "x");
    await press("Sign in");
    expect((await screen.findByRole("alert")).textContent).toBe("There is an account of that name.");
    expect(field("Name").getAttribute("aria-describedby")).toBe("entry-name-complaint");
    expect([field("Name").value, field("Password").value]).toEqual(["fen", "x"]);
  });

  it("has one button for the demo", async () => {
    const calls = serving({ "POST /api/demo/": { ...SESSION, visitor: true } });
    onAScreen(<SignIn demo mail={false} />);
    await press("Visit the Saltmarsh Workshop");
    await waitFor(() => expect(bodies(calls)).toEqual([["POST /api/demo/", undefined]]));
  });

  it("offers an account first to who comes with an invitation", () => {
    serving({});
    onAScreen(<SignIn demo={false} mail={false} />, "/join#k-e-y");
    expect(screen.getByText(/You are invited to a workshop/)).toBeTruthy();
    expect(screen.getByText("Make the account")).toBeTruthy();
  });

  it("sends a link by mail only where the server can, and never tells whose address it knows", async () => {
    const calls = serving({ "POST /api/accounts/forgotten/": undefined });
    onAScreen(<SignIn demo={false} mail />);
    type("Your e-mail address", "fen@example.org");
    fireEvent.submit(screen.getByLabelText("Your e-mail address").closest("form") as HTMLFormElement);
    expect(await screen.findByText(/If an account has this address/)).toBeTruthy();
    expect(bodies(calls)).toEqual([["POST /api/accounts/forgotten/", { email: "fen@example.org" }]]);
  });
});

describe("signing in again", () => {
  const Told = () => <output>{useConnection()}</output>;
  const dialog = (username: string) => {
    const assign = vi.fn();
    vi.stubGlobal("location", { ...window.location, assign });
    lost();
    serving({ "POST /api/accounts/sign-in/": { ...SESSION, username } });
    onAScreen(
      <>
        <Told />
        <SignInAgain username="tester" demo={false} />
      </>,
    );
    type("Password of tester", "rivets-and-rope-7");
    return assign;
  };

  it("goes on where one was", async () => {
    const assign = dialog("tester");
    expect(screen.getByRole("status").textContent).toBe("signed out");
    await press("Sign in");
    await waitFor(() => expect(screen.getByRole("status").textContent).toBe("fine"));
    expect(assign).not.toHaveBeenCalled();
  });

  it("begins anew for somebody else, who has other workshops", async () => {
    const assign = dialog("fen");
    await press("Sign in");
    await waitFor(() => expect(assign).toHaveBeenCalledWith("/"));
  });
});

describe("a new password by a link", () => {
  it("is chosen with the code of the address", async () => {
    const calls = serving({ "POST /api/accounts/reset/": undefined });
    window.location.hash = "#c-o-d-e";
    onAScreen(<NewPassword />);
    type("New password", "gaskets-and-glue-9");
    await press("Make it mine");
    expect(await screen.findByText("That is your password now")).toBeTruthy();
    expect(calls[0]?.body).toEqual({ code: "c-o-d-e", password: "gaskets-and-glue-9" });
    window.location.hash = "";
  });

  it("says what is wrong with the link or with the password, each at its place", async () => {
    const answers = [
      new Refuses({ detail: "no", fields: { password: ["It is too short."] } }),
      new Refuses({ detail: "no", fields: { code: ["This link was used already."] } }),
    ];
    serving({ "POST /api/accounts/reset/": () => answers.shift() });
    onAScreen(<NewPassword />);
    type("New password", "short");
    await press("Make it mine");
    expect((await screen.findByRole("alert")).id).toBe("entry-new-password-complaint");
    await press("Make it mine");
    expect(await screen.findByText("This link was used already.")).toBeTruthy();
    expect(field("New password").value).toBe("short");
  });
});

describe("the account", () => {
  const account = (answers: Record<string, unknown> = {}, session: object = SESSION) => {
    const calls = serving({
      "GET /api/session/": session,
      "GET /api/accounts/email/": { email: "" },
      "GET /api/accounts/devices/": DEVICES,
      "GET /api/workshops/": [
        { id: "w", name: "Tidal Shed", closed_at: "2026-11-20T00:00:00Z", role: "owner" },
      ],
      ...answers,
    });
    onAScreen(<AccountPage />);
    return calls;
  };

  it("changes its password, and forgets both once that is done", async () => {
    const calls = account({ "POST /api/accounts/password/": undefined });
    type("Present password", "old");
    type("New password", "gaskets-and-glue-9");
    await press("Change the password");
    expect(await screen.findByText("Changed.")).toBeTruthy();
    expect(calls[0]?.body).toEqual({ current: "old", password: "gaskets-and-glue-9" });
    expect([field("Present password").value, field("New password").value]).toEqual(["", ""]);
  });

  it("signs out another device, or all of them, but not the one in hand", async () => {
    const calls = account({
      "DELETE /api/accounts/devices/{device}/": undefined,
      "DELETE /api/accounts/devices/": undefined,
    });
    expect(await screen.findByText("this computer")).toBeTruthy();
    const out = screen.getAllByText("Sign out", { selector: "[data-devices] button" });
    expect(out).toHaveLength(2);
    fireEvent.click(out[0] as HTMLElement);
    await waitFor(() => expect(calls[0]?.path).toEqual({ device: "d2" }));
    await press("Sign out everywhere else");
    await waitFor(() => expect(calls[1]?.what).toBe("DELETE /api/accounts/devices/"));
  });

  it("asks for the password before another address is believed", async () => {
    const answers = [new Refuses({ detail: "no", fields: { password: ["That is not it."] } }), undefined];
    const calls = account({ "POST /api/accounts/email/": () => answers.shift() });
    const address = await screen.findByLabelText("E-mail address");
    expect(screen.queryByText("Your password, to be sure", { selector: "[data-email] label" })).toBeNull();
    fireEvent.change(address, { target: { value: "fen@example.org" } });
    const [password] = screen.getAllByLabelText("Your password, to be sure");
    fireEvent.change(password as HTMLElement, { target: { value: "old" } });
    await press("Send links there");
    expect(await screen.findByText("That is not it.")).toBeTruthy();
    expect((address as HTMLInputElement).value).toBe("fen@example.org");
    await press("Send links there");
    expect(await screen.findByText("Kept.")).toBeTruthy();
    expect(calls).toHaveLength(2);
  });

  it("opens a closed workshop again, and erases one by its name alone", async () => {
    const calls = account({
      "DELETE /api/workshops/{workshop}/closing/": undefined,
      "POST /api/workshops/{workshop}/erasing/": new Refuses({ detail: "That is not its name." }),
    });
    await press("Open again");
    await waitFor(() => expect(calls[0]?.what).toBe("DELETE /api/workshops/{workshop}/closing/"));
    await press("Erase");
    type("Name of the workshop to erase", "Shed");
    await press("Erase it for good");
    expect(await screen.findByText("That is not its name.")).toBeTruthy();
    expect(calls[1]?.body).toEqual({ name: "Shed" });
  });

  it("is deleted with the password, unless others would be left without an owner", async () => {
    const words = "Others work in Tidal Shed and nobody else owns it: hand it over first.";
    const calls = account({ "POST /api/accounts/deleting/": new Refuses({ detail: words }) });
    await screen.findByText("Delete the account");
    type("Your password, to be sure", "old");
    await press("Delete my account");
    expect(await screen.findByText(words)).toBeTruthy();
    expect(calls[0]?.body).toEqual({ password: "old" });
  });

  it("of the demo's visitors has nothing to delete and no address", async () => {
    account({}, { ...SESSION, visitor: true });
    await screen.findByText("this computer");
    expect(screen.queryByText("Delete the account")).toBeNull();
    expect(screen.queryByLabelText("E-mail address")).toBeNull();
  });
});
