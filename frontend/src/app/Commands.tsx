import { useQueries } from "@tanstack/react-query";
import { type ReactNode, Suspense, useEffect, useMemo, useState } from "react";
import { useNavigate } from "react-router";
import { useWorkshopAtHand, vehiclesQuery } from "../api/workshops";
import { partsQuery } from "../document/bin/useBin";
import { usePartName } from "../document/bin/usePartName";
import { type Command, CommandsContext, useAllCommands, useCommands } from "../ui/commands/commands";
import { part } from "../ui/frame/part";
import { useBar } from "../ui/frame/TopBar";

const Finder = part(() => import("../ui/commands/Finder").then((m) => m.Finder));
const KeyList = part(() => import("../ui/commands/KeyList").then((m) => m.KeyList));

type Shown = "finder" | "keys" | null;

/** Ctrl K finds anything, ? lists the keys, wherever the focus is. */
export function Commands({ children }: { children: ReactNode }) {
  const [shown, setShown] = useState<Shown>(null);
  const all = useMemo(() => ({ registry: new Map<symbol, Command[]>(), find: () => setShown("finder") }), []);
  useEffect(() => {
    const onKeyDown = (event: KeyboardEvent) => {
      const wanted = shownBy(event);
      if (!wanted) return;
      event.preventDefault();
      setShown(wanted);
    };
    window.addEventListener("keydown", onKeyDown);
    return () => window.removeEventListener("keydown", onKeyDown);
  }, []);
  const close = () => setShown(null);
  return (
    <CommandsContext value={all}>
      <Everywhere onFind={all.find} onKeys={() => setShown("keys")} />
      {children}
      <Suspense fallback={null}>
        {shown === "finder" && <AllFinder onClose={close} />}
        {shown === "keys" && <KeyList commands={[...all.registry.values()].flat()} onClose={close} />}
      </Suspense>
    </CommandsContext>
  );
}

/** A question mark is a letter in a text, and a wish anywhere else. */
function shownBy(event: KeyboardEvent): Shown {
  if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === "k") return "finder";
  if (event.key === "F1") return "keys";
  const typing = event.target instanceof HTMLInputElement || event.target instanceof HTMLTextAreaElement;
  return event.key === "?" && !typing && !event.ctrlKey ? "keys" : null;
}

/** What can be done on every screen. */
function Everywhere({ onFind, onKeys }: { onFind: () => void; onKeys: () => void }) {
  const navigate = useNavigate();
  const { preferences, change } = useBar();
  const group = "Everywhere";
  useCommands([
    { words: "Find anything", group, keys: "Ctrl K", run: onFind },
    { words: "The keys of this screen", group, keys: "?, F1", run: onKeys },
    { words: "Bench", group, run: () => navigate("/") },
    { words: "Parts", group, run: () => navigate("/parts") },
    { words: "Practice", group, run: () => navigate("/practice") },
    { words: "Account", group, run: () => navigate("/account") },
    {
      words: preferences.system === "metric" ? "Show inch units" : "Show metric units",
      group,
      run: () => change({ system: preferences.system === "metric" ? "inch" : "metric" }),
    },
    {
      words: preferences.dark ? "Light colours" : "Dark colours",
      group,
      run: () => change({ dark: !preferences.dark }),
    },
    {
      words: preferences.reducing
        ? "Read ratios as wheel turns per motor turn"
        : "Read ratios as motor turns per wheel turn",
      group,
      run: () => change({ reducing: !preferences.reducing }),
    },
  ]);
  return null;
}

/** The search with the vehicles and parts of every workshop, which are asked for when it is opened. */
function AllFinder({ onClose }: { onClose: () => void }) {
  const { registry } = useAllCommands();
  const things = useThings();
  return <Finder commands={[...[...registry.values()].flat(), ...things]} onClose={onClose} />;
}

function useThings(): Command[] {
  const navigate = useNavigate();
  const name = usePartName();
  const { open } = useWorkshopAtHand();
  const vehicles = useQueries({ queries: open.map(({ id }) => vehiclesQuery(id)) });
  const parts = useQueries({ queries: open.map(({ id }) => partsQuery(id)) });
  return open.flatMap((workshop, i) => [
    {
      words: "Put a vehicle on the bench",
      group: workshop.name,
      run: () => navigate(`/workshops/${workshop.id}/new`),
    },
    { words: "Who works here", group: workshop.name, run: () => navigate(`/workshops/${workshop.id}`) },
    ...(vehicles[i]?.data ?? []).map((vehicle) => ({
      words: vehicle.name,
      group: workshop.name,
      run: () => navigate(`/vehicles/${vehicle.id}/line`),
    })),
    ...(parts[i]?.data ?? []).map(({ document: part }) => {
      const run = () => navigate(`/parts?workshop=${workshop.id}&kind=${part.kind}`);
      return { words: name(part), group: `parts, ${workshop.name}`, run };
    }),
  ]);
}
