import { beforeEach, describe, expect, it } from "vitest";
import { dropKept, keptKey, keptOf, writeKept } from "./kept";
import { dropFiles, keepFile, keptFile } from "./keptFiles";
import { lostWords, unsentOf } from "./unsent";

beforeEach(() => {
  writeKept(keptKey("runs", "ada", "v"), [{ id: "1" }, { id: "2" }]);
  writeKept(keptKey("photos", "ada", "v"), [{ id: "3" }]);
  writeKept(keptKey("build", "ada", "w", "motor|left"), { note: "half" });
  writeKept(keptKey("draft", "ada", "v", "one"), {});
  writeKept(keptKey("draft", "ada", "v", "other"), {});
  writeKept(keptKey("runs", "bo", "v"), [{ id: "4" }]);
});

describe("what is kept on a device", () => {
  it("is told in numbers, each with the way to where it is sent from", () => {
    const told = unsentOf("ada").map(({ words, to }) => `${words} ${to}`);
    expect(told.sort()).toEqual([
      "1 photo /vehicles/v/build",
      "2 runs /vehicles/v/runs",
      "design changes /vehicles/v/brief",
      "design changes /vehicles/v/brief",
    ]);
    expect(unsentOf("cy")).toEqual([]);
  });

  it("would be lost with the account, what is half typed too", () => {
    expect(lostWords("bo")).toBe("1 run");
    expect(lostWords("cy")).toBe("");
    expect(
      lostWords("ada")
        .split(/, | and /)
        .sort(),
    ).toEqual(["1 photo", "2 runs", "design changes", "something half typed"]);
  });

  it("is nothing where another version of the page has kept it otherwise", () => {
    writeKept(keptKey("parts", "cy", "v"), { odd: true });
    expect(lostWords("cy")).toBe("");
  });

  it("keeps the part of a place whole", () => {
    expect(keptOf("ada").find((entry) => entry.place === "w")?.part).toBe("motor|left");
  });

  it("leaves with the account, and nobody else's with it", async () => {
    await keepFile(keptKey("photos", "ada", "v", "3"), new Blob(["a"]));
    await keepFile(keptKey("photos", "bo", "v", "5"), new Blob(["b"]));
    await dropKept("ada");
    expect(keptOf("ada")).toEqual([]);
    expect(keptOf("bo")).toHaveLength(1);
    expect(await keptFile(keptKey("photos", "ada", "v", "3"))).toBeUndefined();
    expect(await keptFile(keptKey("photos", "bo", "v", "5"))).toBeTruthy();
    await dropFiles(keptKey("photos", "bo", "v"));
  });

  it("can be dropped at one place", async () => {
    await dropKept("ada", "v");
    expect(keptOf("ada").map((entry) => entry.place)).toEqual(["w"]);
  });
});
