/** Which folder may import from which: one way, from the frame of the page down to the server's answers. */
import { readdirSync, readFileSync } from "node:fs";
import { dirname, join, normalize, relative } from "node:path";
import { expect, test } from "vitest";

const ROOT = __dirname;
/** From the top down: a folder imports from itself and from those below it. */
const LAYERS = ["app", "screens", "stations", "drawing", "document", "ui", "words", "theme", "api"];
const IMPORT = /(?:from|import\() ?"(\.[^"]+)"/g;

const files = readdirSync(ROOT, { recursive: true, encoding: "utf8" }).filter(
  (file) => /\.tsx?$/.test(file) && !/\.test\.|\.d\.ts$|^fixtures|^main/.test(file),
);

/** Pairs of a module and one that it imports, as paths below src without an ending. */
const imports = files.flatMap((file) =>
  [...readFileSync(join(ROOT, file), "utf8").matchAll(IMPORT)].map(
    ([, target = ""]) =>
      [file.replace(/\.tsx?$/, ""), relative(".", normalize(join(dirname(file), target)))] as const,
  ),
);

const top = (module: string) => module.split("/")[0] ?? "";
const station = (module: string) => /^stations\/(\w+)/.exec(module)?.[1];

test("folders import one way", () => {
  const upwards = imports.filter(([from, to]) => LAYERS.indexOf(top(to)) < LAYERS.indexOf(top(from)));
  expect(upwards).toEqual([]);
});

test("stations and screens do not import each other", () => {
  const across = imports.filter(
    ([from, to]) => station(from) && station(to) && station(to) !== "shared" && station(from) !== station(to),
  );
  expect(across).toEqual([]);
});

test("no module imports itself by way of others", () => {
  const known = new Map<string, string[]>();
  for (const [from, to] of imports) known.set(from, [...(known.get(from) ?? []), to]);
  const done = new Set<string>();
  const circles: string[] = [];
  const visit = (module: string, way: string[]) => {
    if (way.includes(module)) circles.push([...way.slice(way.indexOf(module)), module].join(" → "));
    if (way.includes(module) || done.has(module)) return;
    for (const next of known.get(module) ?? []) visit(next, [...way, module]);
    done.add(module);
  };
  for (const module of known.keys()) visit(module, []);
  expect(circles).toEqual([]);
});
