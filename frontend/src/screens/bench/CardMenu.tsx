import { IconButton } from "@chakra-ui/react";
import { Suspense, useState } from "react";
import { part } from "../../ui/frame/part";
import { type CardMenuProps, MORE } from "./more";

const OpenMenu = part(() => import("./OpenMenu").then((m) => m.default));

/** What else can be done with a vehicle on the bench: the menu itself comes when it is first wanted. */
export function CardMenu({ vehicle, mayEdit }: CardMenuProps) {
  const [wanted, setWanted] = useState(false);
  const button = (
    <IconButton
      {...MORE}
      aria-label={`More for ${vehicle.name}`}
      aria-haspopup="menu"
      onClick={() => setWanted(true)}
    >
      ⋯
    </IconButton>
  );
  if (!wanted) return button;
  return (
    <Suspense fallback={button}>
      <OpenMenu vehicle={vehicle} mayEdit={mayEdit} />
    </Suspense>
  );
}
