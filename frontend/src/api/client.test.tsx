import { expect, test } from "vitest";
import { isRefusal, RefusedError } from "./client";

test("is final where the same would be said another time", () => {
  const statuses = [400, 401, 403, 404, 408, 409, 413, 429, 500, 503];
  const final = statuses.filter((status) => isRefusal(new RefusedError({ detail: "no" }, status)));
  expect(final).toEqual([400, 403, 404, 409, 413]);
  expect(isRefusal(new TypeError("no connection"))).toBe(false);
});
