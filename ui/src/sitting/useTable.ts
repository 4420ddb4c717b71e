import { useEffect, useRef, useState } from "react";
import type { Sitting } from "../api/client";
import { keepSignal, keptSignal, signal, type By } from "../parts/whenDry";

/**
 * Lets the page be installed, and opened with its sitting without the server, where the browser can:
 * what was asked for before the worker was there is asked for once more, so that it is kept.
 */
export function useInstalled(sitting: number) {
  useEffect(() => {
    const workers = navigator.serviceWorker;
    if (!workers) return;
    const keep = () =>
      void Promise.all(["/api/session", `/api/sittings/${sitting}`].map((of) => fetch(of))).catch(
        () => undefined, // it is out of contact already
      );
    void workers
      .register("/sw.js")
      .then(() => workers.ready)
      .then(() => {
        if (workers.controller) keep();
        else workers.addEventListener("controllerchange", keep, { once: true });
      })
      .catch(() => undefined);
  }, [sitting]);
}

/** Keeps the screen from going dark, where the browser can. */
export function useScreenAwake(on: boolean) {
  useEffect(() => {
    if (!on || !("wakeLock" in navigator)) return;
    let lock: WakeLockSentinel | undefined;
    let over = false;
    const take = () => {
      if (document.visibilityState !== "visible") return;
      navigator.wakeLock
        .request("screen")
        .then((got) => {
          if (over) void got.release();
          else lock = got;
        })
        .catch(() => undefined); // a battery that is low says no
    };
    take();
    document.addEventListener("visibilitychange", take);
    return () => {
      over = true;
      document.removeEventListener("visibilitychange", take);
      void lock?.release();
    };
  }, [on]);
}

/** A sound, a buzz or a flash when a slot has dried, if that is wanted. */
export function useDrySignal(sitting: Sitting | undefined, now: number) {
  const [by, setBy] = useState(keptSignal);
  const [flashUntil, setFlashUntil] = useState(0);
  const before = useRef(now);
  useEffect(() => {
    const was = before.current;
    before.current = now;
    const dried = sitting?.places.some((p) => p.coats > 0 && p.dry > was && p.dry <= now);
    if (!dried || sitting?.ended) return;
    signal(by);
    // eslint-disable-next-line react-hooks/set-state-in-effect -- time passing is what it reacts to
    if (by === "flash") setFlashUntil(now + 2000);
  }, [sitting, now, by]);
  return {
    by,
    setBy: (next: By) => {
      keepSignal(next);
      setBy(next);
    },
    flash: now < flashUntil,
  };
}
