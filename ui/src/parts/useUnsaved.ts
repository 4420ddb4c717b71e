import { useCallback, useEffect, useRef, useState } from "react";
import { Refused } from "../api/client";

/** A change that the server has not confirmed yet, and the version it was made on. */
export type Unsaved<C> = { content: C; version: number; resolves?: number };

type All<C> = Record<string, Unsaved<C>>;

function remembered<C>(place: string): All<C> {
  try {
    return (JSON.parse(localStorage.getItem(place) ?? "{}") as All<C> | null) ?? {};
  } catch {
    return {};
  }
}

/**
 * Changes on their way to the server, one to a thing. While it cannot be
 * reached they are kept in the browser under `place`, also over a reload, and
 * tried again. `send` answers with the new version; `failed` hears why a change
 * was refused for good.
 */
export function useUnsaved<C>(
  place: string,
  send: (key: string, change: Unsaved<C>) => Promise<number>,
  failed: (key: string, error: unknown) => void,
) {
  const [all, setAll] = useState<All<C>>(() => remembered<C>(place));
  const [waiting, setWaiting] = useState(false);
  const [tries, setTries] = useState(0);
  const latest = useRef(all);
  const inFlight = useRef(false);
  const calls = useRef({ send, failed });
  useEffect(() => {
    calls.current = { send, failed };
  });

  const hold = useCallback(
    (key: string, change: Unsaved<C> | null) => {
      const next = { ...latest.current };
      if (change) next[key] = change;
      else delete next[key];
      latest.current = next;
      setAll(next);
      if (Object.keys(next).length > 0) localStorage.setItem(place, JSON.stringify(next));
      else localStorage.removeItem(place);
    },
    [place],
  );

  useEffect(() => {
    const key = Object.keys(all)[0];
    const change = key === undefined ? undefined : all[key];
    if (key === undefined || !change || inFlight.current) return;
    inFlight.current = true;
    calls.current
      .send(key, change)
      .then((version) => {
        setWaiting(false);
        const now = latest.current[key];
        inFlight.current = false;
        hold(key, now && now.content !== change.content ? { content: now.content, version } : null);
      })
      .catch((e: unknown) => {
        inFlight.current = false;
        if (e instanceof Refused && e.lost) {
          setWaiting(true);
          setTimeout(() => setTries((n) => n + 1), 1500);
          return;
        }
        setWaiting(false);
        hold(key, null);
        calls.current.failed(key, e);
      });
  }, [all, tries, hold]);

  return { all, waiting, hold };
}
