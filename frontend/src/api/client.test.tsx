import { expect, test } from "vitest";
import { answer, api, isRefusal, RefusedError, refusalText, troubleText } from "./client";

test("is final where the same would be said another time", () => {
  const statuses = [400, 401, 403, 404, 408, 409, 413, 429, 500, 503];
  const final = statuses.filter((status) => isRefusal(new RefusedError({ detail: "no" }, status)));
  expect(final).toEqual([400, 403, 404, 409, 413]);
  expect(isRefusal(new TypeError("no connection"))).toBe(false);
});

test("a lost connection is told in words of ours", async () => {
  const fetch = () => Promise.reject(new TypeError("Failed to fetch"));
  const asked = answer(api.GET("/api/session/", { baseUrl: "http://localhost", fetch }));
  expect(await asked.catch(troubleText)).toBe("There is no connection: try again.");
});

test("a fault is told with its place and its remedy, as far as it has them", () => {
  const placed = { path: "a.json", problem: "no design", remedy: "save it again" };
  const bare = { path: "", problem: "You are no longer in this workshop.", remedy: "" };
  expect(refusalText({ detail: "", faults: [placed] })).toBe("a.json: no design, save it again");
  expect(refusalText({ detail: "", faults: [bare] })).toBe("You are no longer in this workshop.");
});
