import { Box, Dialog, Portal } from "@chakra-ui/react";
import { useBar } from "../frame/TopBar";
import type { Command } from "./commands";

interface Props {
  commands: Command[];
  onClose: () => void;
}

/** What the keys do on this screen, by where they act. */
export function KeyList({ commands, onClose }: Props) {
  const { preferences, change } = useBar();
  const keyed = commands.filter((command) => command.keys);
  const groups = [...new Set(keyed.map((command) => command.group))];
  return (
    <Dialog.Root open onOpenChange={({ open }) => !open && onClose()} scrollBehavior="inside">
      <Portal>
        <Dialog.Backdrop />
        <Dialog.Positioner>
          <Dialog.Content bg="panel" data-keys>
            <Dialog.Header>
              <Dialog.Title>Keys on this screen</Dialog.Title>
            </Dialog.Header>
            <Dialog.Body>
              {groups.map((group) => (
                <Box key={group} mb="3">
                  <Box as="h3" color="ink.second" fontSize="sm">
                    {group}
                  </Box>
                  <table className="working">
                    <tbody>
                      {keyed
                        .filter((command) => command.group === group)
                        .map((command) => (
                          <tr key={command.words}>
                            <td>{command.keys}</td>
                            <th scope="row">{command.words}</th>
                          </tr>
                        ))}
                    </tbody>
                  </table>
                </Box>
              ))}
              <Box as="label" display="block" mt="3" fontSize="sm">
                <input
                  type="checkbox"
                  checked={preferences.letterKeys}
                  onChange={(event) => change({ letterKeys: event.target.checked })}
                />{" "}
                Single letters act while a drawing or a list has the focus
              </Box>
              <button type="button" className="plain" onClick={onClose} style={{ marginTop: 12 }}>
                Close
              </button>
            </Dialog.Body>
          </Dialog.Content>
        </Dialog.Positioner>
      </Portal>
    </Dialog.Root>
  );
}
