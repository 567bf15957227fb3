import { expect, test } from "vitest";
import type { Live } from "../api/client";
import { DOCUMENTS } from "../fixtures";
import { Refuses, serving } from "../fixtures/server";
import { figuresSeen, sawFigures, sawRevision, vehicleNow } from "./seen";

const VEHICLE = "GET /api/vehicles/{vehicle}/";
const stored = (number: number) => ({ number, document: DOCUMENTS.plain, saved_at: "2026-11-30T10:00:00Z" });
const FOUND = { workshop: "w", role: "editor", scratch: false, revision: stored(3) };
const nobody = () => {
  throw new TypeError("no connection");
};

test("a vehicle opens again without a connection, with what was saved since it was seen", async () => {
  serving({ [VEHICLE]: FOUND });
  expect((await vehicleNow("heron")).stored.number).toBe(3);
  serving({ [VEHICLE]: nobody });
  expect((await vehicleNow("heron")).stored.number).toBe(3);
  sawRevision("heron", stored(4));
  serving({ [VEHICLE]: new Refuses({ detail: "busy" }, 503) });
  expect((await vehicleNow("heron")).stored.number).toBe(4);
});

test("but not where it was never seen, or the server says that it is not one's own", async () => {
  serving({ [VEHICLE]: nobody });
  await expect(vehicleNow("knot")).rejects.toThrow("no connection");
  serving({ [VEHICLE]: FOUND });
  await vehicleNow("knot");
  serving({ [VEHICLE]: new Refuses({ detail: "Not found." }, 404) });
  await expect(vehicleNow("knot")).rejects.toThrow("Not found.");
});

test("figures are shown again for a document that is the same, and for no other", () => {
  const live = { gauges: [] } as unknown as Live;
  sawFigures("heron", DOCUMENTS.plain, live);
  expect(figuresSeen("heron", structuredClone(DOCUMENTS.plain))).toBe(live);
  expect(figuresSeen("heron", { ...DOCUMENTS.plain, vehicle: { mass: "9 kg" } })).toBeNull();
  expect(figuresSeen("dunlin", DOCUMENTS.plain)).toBeNull();
});
