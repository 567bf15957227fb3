import { Button } from "@chakra-ui/react";
import type { ReactNode } from "react";
import { isRefusal, RefusedError } from "../../api/client";
import { back } from "../../api/connection";
import { Notice } from "./Notice";

interface Props {
  /** Why the last try failed. */
  error: Error;
  /** What is said where the server will not show it, with the children. */
  title: string;
  children: ReactNode;
}

/** A screen in place of what the server will not show, or cannot now: the two are never mixed up. */
export function Unavailable({ error, title, children }: Props) {
  if (isRefusal(error)) return <Notice title={title}>{children}</Notice>;
  return (
    <Notice title="This cannot be shown now">
      {error instanceof RefusedError ? error.message : "The server does not answer."} It is tried again by
      itself.{" "}
      <Button size="xs" onClick={back}>
        Try again now
      </Button>
    </Notice>
  );
}
