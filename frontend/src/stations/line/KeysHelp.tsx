import { Box, Dialog, Portal } from "@chakra-ui/react";
import { useBar } from "../../ui/frame/TopBar";

/** What the keys of the Line do, while the drawing has the focus. */
export const KEYS: [string, string][] = [
  ["Tab, ← →", "to the next wheel, box or motor"],
  ["↑ ↓", "the next size in the bin; one tooth where the bin has none"],
  ["Alt ↑, Alt ↓", "one tooth more or less"],
  ["Page ↑, Page ↓", "five sizes more or less"],
  ["M", "set the mark: from then on every value shows the difference"],
  ["A", "add a stage after the selected one"],
  ["D", "double the selected stage"],
  ["Shift ←, Shift →", "the selected stage one place earlier or later"],
  ["Del", "remove the selected stage"],
  ["T", "the drawing as a table"],
  ["Ctrl Z, Ctrl Shift Z", "undo, redo"],
  ["?", "this list"],
];

export function KeysHelp({ onClose }: { onClose: () => void }) {
  const { preferences, change } = useBar();
  return (
    <Dialog.Root open onOpenChange={({ open }) => !open && onClose()}>
      <Portal>
        <Dialog.Backdrop />
        <Dialog.Positioner>
          <Dialog.Content bg="panel" data-keys>
            <Dialog.Header>
              <Dialog.Title>Keys of the Line</Dialog.Title>
            </Dialog.Header>
            <Dialog.Body>
              <table className="working">
                <tbody>
                  {KEYS.map(([key, words]) => (
                    <tr key={key}>
                      <td>{key}</td>
                      <th scope="row">{words}</th>
                    </tr>
                  ))}
                </tbody>
              </table>
              <Box as="label" display="block" mt="3" fontSize="sm">
                <input
                  type="checkbox"
                  checked={preferences.letterKeys}
                  onChange={(event) => change({ letterKeys: event.target.checked })}
                />{" "}
                Single letters act while the drawing has the focus
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
