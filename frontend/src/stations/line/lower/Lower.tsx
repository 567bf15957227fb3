import { Box, Flex } from "@chakra-ui/react";
import { type KeyboardEvent, type ReactNode, Suspense, useState } from "react";
import { part } from "../../../ui/frame/part";

const Pairs = part(() => import("./Pairs").then((m) => m.Pairs));
const SoftwareOrGearing = part(() => import("./SoftwareOrGearing").then((m) => m.SoftwareOrGearing));
const Compare = part(() => import("../../shared/Compare").then((m) => m.Compare));

const VIEWS = {
  sweep: "Sweep and curves",
  pairs: "Table of pairs",
  ways: "Software or gearing",
  compare: "Revisions and compare",
} as const;
type View = keyof typeof VIEWS;
const NAMES = Object.keys(VIEWS) as View[];

/** Under the drawing: the sweep with the curves, or one of the tables. */
export function Lower({ children }: { children: ReactNode }) {
  const [view, setView] = useState<View>("sweep");
  const onKeyDown = (event: KeyboardEvent) => {
    const by = { ArrowRight: 1, ArrowLeft: -1 }[event.key];
    if (by === undefined) return;
    event.preventDefault();
    const next = NAMES[(NAMES.indexOf(view) + by + NAMES.length) % NAMES.length] as View;
    setView(next);
    document.getElementById(`tab-${next}`)?.focus();
  };
  return (
    <Box>
      <Flex
        role="tablist"
        aria-label="Under the drawing"
        gap="4"
        px="1"
        pb="1"
        wrap="wrap"
        fontSize="sm"
        onKeyDown={onKeyDown}
        data-screen-only
      >
        {NAMES.map((name) => (
          <button
            key={name}
            id={`tab-${name}`}
            type="button"
            role="tab"
            className="tab"
            aria-selected={view === name}
            aria-controls="lower"
            tabIndex={view === name ? 0 : -1}
            onClick={() => setView(name)}
          >
            {VIEWS[name]}
          </button>
        ))}
      </Flex>
      <Box id="lower" role="tabpanel" aria-labelledby={`tab-${view}`}>
        {view === "sweep" ? (
          children
        ) : (
          <Box bg="panel" borderWidth="1px" borderColor="line" borderRadius="3px" p="3" minH="300px">
            <Suspense fallback={<Box role="status">Loading</Box>}>
              {view === "pairs" ? <Pairs /> : view === "ways" ? <SoftwareOrGearing /> : <Compare />}
            </Suspense>
          </Box>
        )}
      </Box>
    </Box>
  );
}
