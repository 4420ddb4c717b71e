import { useEffect } from "react";
import { typing } from "./keys";

const forth = new Set([" ", "Enter", "PageDown", "ArrowRight"]);
const returns = new Set(["PageUp", "ArrowLeft"]);

/** What stands on a wall goes by one hand: a clicker's two keys, the arrows, the space bar; and single letters. */
export function useWallKeys(
  on: boolean,
  {
    onward,
    back,
    others,
  }: { onward: () => unknown; back: () => unknown; others: Record<string, () => unknown> },
) {
  useEffect(() => {
    if (!on) return;
    const keys = (e: KeyboardEvent) => {
      // What a figure has taken for itself is not meant for the wall.
      if (e.defaultPrevented || e.repeat || typing(e)) return;
      const target = e.target instanceof HTMLElement ? e.target : null;
      // What has the focus is pressed by the space bar and the enter key itself.
      if ((e.key === " " || e.key === "Enter") && target?.closest("button, a, [role]")) return;
      const does = forth.has(e.key) ? onward : returns.has(e.key) ? back : others[e.key];
      if (!does) return;
      e.preventDefault();
      does();
    };
    window.addEventListener("keydown", keys);
    return () => window.removeEventListener("keydown", keys);
  });
}
