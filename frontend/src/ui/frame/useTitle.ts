import { useEffect } from "react";

const OURS = "Ydrometer";

/** What the window is called while a screen is shown. */
export function useTitle(title: string): void {
  useEffect(() => {
    document.title = title ? `${title} · ${OURS}` : OURS;
    return () => {
      document.title = OURS;
    };
  }, [title]);
}
