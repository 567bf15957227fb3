/** What can be done on the screen that is shown, said by its parts and found by everybody: the search, the list of keys. */
import { createContext, useContext, useEffect, useRef } from "react";

export interface Command {
  words: string;
  /** Where it belongs: a screen, a workshop, a kind of thing. */
  group: string;
  /** The keys that do the same, if any. */
  keys?: string;
  /** What it does; keys that only act on what has the focus can be listed, and not be done from elsewhere. */
  run?: () => void;
}

interface Commands {
  registry: Map<symbol, Command[]>;
  /** Opens the search. */
  find: () => void;
}

const Context = createContext<Commands>({ registry: new Map(), find: () => undefined });
export const CommandsContext = Context.Provider;

/** Adds commands for as long as the component is shown. Nothing is painted anew for it. */
export function useCommands(commands: Command[]): void {
  const { registry } = useContext(Context);
  const id = useRef(Symbol("commands"));
  useEffect(() => {
    registry.set(id.current, commands);
  });
  useEffect(() => {
    const own = id.current;
    return () => {
      registry.delete(own);
    };
  }, [registry]);
}

/** Keys that act on what has the focus, for the list of keys: not to be done from elsewhere. */
export const keysOf = (group: string, keys: [keys: string, words: string][]): Command[] =>
  keys.map(([pressed, words]) => ({ keys: pressed, words, group }));

/** All that are there now, and the way to search them. */
export const useAllCommands = () => useContext(Context);

/** Those that hold every word that was typed, those that begin with it first. */
export function matching(commands: Command[], typed: string, most: number): Command[] {
  const words = typed.toLowerCase().split(/\s+/).filter(Boolean);
  const text = (command: Command) => `${command.words} ${command.group}`.toLowerCase();
  const found = commands.filter(
    (command) => command.run && words.every((word) => text(command).includes(word)),
  );
  const late = (command: Command) => (words[0] && command.words.toLowerCase().startsWith(words[0]) ? 0 : 1);
  return found.sort((a, b) => late(a) - late(b)).slice(0, most);
}
