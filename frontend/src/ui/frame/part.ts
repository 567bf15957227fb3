/** Parts of the page that do not come with it: each is fetched when it is first wanted, or once nothing else is on. */
import { type ComponentType, lazy } from "react";
import { api } from "../../api/client";
import { pause, whenBack } from "../../api/connection";

type Load<P> = () => Promise<ComponentType<P>>;

const known: Load<never>[] = [];

/** A component of a part. Without a connection it waits for one, as its `Suspense` does. */
export function part<P extends object>(load: Load<P>) {
  known.push(load as Load<never>);
  return lazy(async () => ({ default: await persistently(load) }));
}

/** Fetch all parts, those that others bring with them too: in the pit the connection may be gone. */
export async function fetchParts(): Promise<void> {
  for (let i = 0; i < known.length; i++) await known[i]?.().catch(() => undefined);
}

/** @throws what the last try did, where the server answers but has no such part: it is a newer one by now. */
async function persistently<P>(load: Load<P>): Promise<ComponentType<P>> {
  for (let tries = 0; ; tries++) {
    try {
      return await load();
    } catch (error) {
      if (tries > 0 && (await answers())) throw error;
      await soon(tries);
    }
  }
}

function answers(): Promise<boolean> {
  return api.GET("/api/session/").then(
    () => true,
    () => false,
  );
}

/** In a while, or as soon as the connection is back. */
function soon(tries: number): Promise<void> {
  return new Promise((go) => {
    const end = () => {
      forget();
      window.clearTimeout(timer);
      go();
    };
    const timer = window.setTimeout(end, pause(tries));
    const forget = whenBack(end);
  });
}
