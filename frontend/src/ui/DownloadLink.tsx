import { VisuallyHidden } from "@chakra-ui/react";
import { type ComponentProps, type MouseEvent, useEffect, useRef, useState } from "react";
import { troubleText } from "../api/client";
import { fetchFile } from "../api/download";
import { saveBlob } from "./saving";
import { Trouble } from "./Trouble";

/** A link to a file that the server makes: it says that it is being made, and tries again while the server is busy. */
export function DownloadLink({ href, children, ...rest }: ComponentProps<"a"> & { href: string }) {
  const [busy, setBusy] = useState(false);
  const [trouble, setTrouble] = useState("");
  const gone = useRef(false);
  useEffect(() => {
    gone.current = false;
    return () => {
      gone.current = true;
    };
  }, []);
  const fetchIt = async (event: MouseEvent) => {
    // Whoever opens it elsewhere gets the server's own answer.
    if (event.ctrlKey || event.metaKey || event.shiftKey) return;
    event.preventDefault();
    if (busy) return;
    setBusy(true);
    setTrouble("");
    try {
      const { name, blob } = await fetchFile(href, () => gone.current);
      if (!gone.current) saveBlob(name, blob);
    } catch (error) {
      setTrouble(troubleText(error));
    }
    setBusy(false);
  };
  return (
    <>
      <a {...rest} href={href} download aria-busy={busy} onClick={(event) => void fetchIt(event)}>
        {children}
        {busy && (
          <>
            {" …"}
            <VisuallyHidden role="status">is being made</VisuallyHidden>
          </>
        )}
      </a>
      <Trouble text={trouble} />
    </>
  );
}
