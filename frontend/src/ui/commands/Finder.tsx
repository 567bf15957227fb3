import { Box, Dialog, Input, Portal } from "@chakra-ui/react";
import { type KeyboardEvent, useState } from "react";
import { type Command, matching } from "./commands";

const MOST = 12;

interface Props {
  commands: Command[];
  onClose: () => void;
}

/** Finds anything by a few letters: type, walk with ↑ ↓, Enter does it. */
export function Finder({ commands, onClose }: Props) {
  const [typed, setTyped] = useState("");
  const [chosen, setChosen] = useState(0);
  const matches = matching(commands, typed, MOST);
  const here = Math.min(chosen, matches.length - 1);
  const act = (command: Command | undefined) => {
    if (!command?.run) return;
    onClose();
    // Once the focus is back where it was.
    window.setTimeout(command.run);
  };
  const onKeyDown = (event: KeyboardEvent) => {
    const by = { ArrowDown: 1, ArrowUp: -1 }[event.key];
    if (by !== undefined) {
      event.preventDefault();
      setChosen(Math.min(Math.max(here + by, 0), matches.length - 1));
    }
    if (event.key === "Enter") act(matches[here]);
  };
  return (
    <Dialog.Root open onOpenChange={({ open }) => !open && onClose()} placement="top">
      <Portal>
        <Dialog.Backdrop />
        <Dialog.Positioner>
          <Dialog.Content bg="panel" data-finder aria-label="Find anything">
            <Box p="3">
              <Input
                fontFamily="body"
                placeholder="a station, a vehicle, a part, something to do"
                aria-label="Find"
                role="combobox"
                aria-expanded="true"
                aria-controls="found"
                aria-activedescendant={matches.length > 0 ? `found-${here}` : undefined}
                autoFocus
                value={typed}
                onChange={(event) => {
                  setTyped(event.target.value);
                  setChosen(0);
                }}
                onKeyDown={onKeyDown}
              />
              <Box id="found" role="listbox" aria-label="Found" mt="2">
                {matches.map((command, place) => (
                  // biome-ignore lint/a11y/useKeyWithClickEvents: the field has the keys
                  // biome-ignore lint/a11y/useFocusableInteractive: the field has the focus, and says which is meant
                  <div
                    key={`${command.group} ${command.words}`}
                    id={`found-${place}`}
                    role="option"
                    aria-selected={place === here}
                    className="found"
                    onClick={() => act(command)}
                    onMouseMove={() => setChosen(place)}
                  >
                    <span>{command.words}</span>
                    <Box as="span" color="ink.second" fontSize="sm" ml="auto">
                      {command.group}
                    </Box>
                    {command.keys && <kbd>{command.keys}</kbd>}
                  </div>
                ))}
              </Box>
              {matches.length === 0 && (
                <Box role="status" color="ink.second" p="2">
                  Nothing is called that. Fewer letters find more.
                </Box>
              )}
            </Box>
          </Dialog.Content>
        </Dialog.Positioner>
      </Portal>
    </Dialog.Root>
  );
}
