import { useCallback, useRef, useState } from "react";

/** Runs what must not be asked for twice at once: while one is under way another is not begun. */
export function useOnce() {
  const running = useRef(false);
  const [busy, setBusy] = useState(false);
  const once = useCallback((ask: () => Promise<unknown>) => {
    if (running.current) return;
    running.current = true;
    setBusy(true);
    void ask().finally(() => {
      running.current = false;
      setBusy(false);
    });
  }, []);
  return { busy, once };
}
