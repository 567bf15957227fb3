/** Whether the server has another version of the page by now than the one that is open. */
import { told } from "./told";

const other = told(false);

export const useOtherVersion = other.use;

/** The name of the page's first script. */
function own(): string {
  const script = document.querySelector<HTMLScriptElement>('script[type="module"][src*="/index-"]');
  return script?.src.match(/(index-[^/]+)\.js/)?.[1] ?? "";
}

/** @param served as the server names it in each answer; null where an answer came from elsewhere. */
export function sawVersion(served: string | null): void {
  const mine = own();
  if (served && mine) other.set(served !== mine);
}
