import { Box, IconButton, Menu } from "@chakra-ui/react";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useNavigate } from "react-router";
import { answer, api, troubleText } from "../../api/client";
import { useWorkshopAtHand } from "../../api/workshops";
import type { DesignDocument } from "../../document/document";
import { saveDesignFile } from "../../document/files";
import { type CardMenuProps, MORE } from "./more";
import { ShareDialog } from "./ShareDialog";
import { useWhere } from "./useWhere";

/** The menu of a card, open when it comes. */
export default function OpenMenu({ vehicle, mayEdit }: CardMenuProps) {
  const { open } = useWorkshopAtHand();
  const copy = useCopy(vehicle.id);
  const where = useWhere(vehicle);
  const [sharing, setSharing] = useState(false);
  const trouble = copy.error ?? where.error;
  const targets = open.filter((one) => one.role !== "viewer");
  return (
    <Menu.Root positioning={{ placement: "bottom-end" }} defaultOpen>
      <Menu.Trigger asChild>
        <IconButton {...MORE} aria-label={`More for ${vehicle.name}`} loading={copy.isPending}>
          ⋯
        </IconButton>
      </Menu.Trigger>
      {/* Within the card, and so within the landmark that it belongs to; over the card's own link. */}
      <Menu.Positioner zIndex="dropdown">
        <Menu.Content bg="panel" color="ink" borderWidth="1px" borderColor="line" boxShadow="none">
          {targets.map((target) => (
            <Menu.Item key={target.id} value={`copy ${target.id}`} onClick={() => copy.mutate(target.id)}>
              {target.id === vehicle.workshop ? "Copy" : `Copy to ${target.name}`}
            </Menu.Item>
          ))}
          <Menu.Item
            value="export"
            onClick={() => saveDesignFile(vehicle.document as unknown as DesignDocument)}
          >
            Export as a design file
          </Menu.Item>
          {mayEdit && (
            <Menu.Item value="share" onClick={() => setSharing(true)}>
              Show it to somebody …
            </Menu.Item>
          )}
          {mayEdit && (
            <Menu.Item value="away" onClick={() => where.mutate({ put_away: !vehicle.put_away })}>
              {vehicle.put_away ? "Take back" : "Put away"}
            </Menu.Item>
          )}
        </Menu.Content>
      </Menu.Positioner>
      {sharing && <ShareDialog vehicle={vehicle} onClose={() => setSharing(false)} />}
      {trouble && (
        <Box role="alert" color="brick" fontSize="sm">
          {troubleText(trouble)}
        </Box>
      )}
    </Menu.Root>
  );
}

/** The copy is opened at once: it is made to be changed. */
function useCopy(vehicle: string) {
  const navigate = useNavigate();
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (workshop: string) =>
      answer(
        api.POST("/api/vehicles/{vehicle}/copies/", { params: { path: { vehicle } }, body: { workshop } }),
      ),
    onSuccess: (created) => {
      void queries.invalidateQueries({ queryKey: ["vehicles", created.workshop] });
      navigate(`/vehicles/${created.id}/line`);
    },
  });
}
