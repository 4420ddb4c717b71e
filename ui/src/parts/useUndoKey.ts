import { useLayoutEffect } from "react";

/** Control or command with z undoes, but not while somebody is writing. */
export function useUndoKey(undo: () => void) {
  useLayoutEffect(() => {
    const keys = (e: KeyboardEvent) => {
      const typing =
        e.target instanceof HTMLInputElement || e.target instanceof HTMLTextAreaElement;
      if ((e.ctrlKey || e.metaKey) && e.key === "z" && !typing) {
        e.preventDefault();
        undo();
      }
    };
    window.addEventListener("keydown", keys);
    return () => window.removeEventListener("keydown", keys);
  });
}
