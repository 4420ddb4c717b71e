import { useSyncExternalStore } from "react";

// The server's clock over this one, in milliseconds, as the quickest answers told it; kept for when a
// page is opened without the server.
const key = "gyrophane.clock";
let offset = Number(localStorage.getItem(key)) || 0;
let least = Infinity;

/** Learns from an answer that carries the server's time, and when it was asked for. */
export function offsetOf(server: number, asked: number) {
  const now = Date.now();
  const took = now - asked;
  // A slower answer tells it less well, unless the clock was set meanwhile.
  const next = server - (asked + now) / 2;
  if (took > least && Math.abs(next - offset) <= took) return;
  least = took;
  offset = next;
  localStorage.setItem(key, String(Math.round(next)));
}

export const clockOffset = () => offset;

/** Now by the server's clock, in milliseconds. */
const serverNow = () => Date.now() + offset;

let now = serverNow();
const heard = new Set<() => void>();
let timer: ReturnType<typeof setInterval> | undefined;

function subscribe(hear: () => void) {
  heard.add(hear);
  timer ??= setInterval(() => {
    now = serverNow();
    heard.forEach((tell) => tell());
  }, 1000);
  return () => {
    heard.delete(hear);
    if (heard.size === 0) {
      clearInterval(timer);
      timer = undefined;
    }
  };
}

/** Now by the server's clock, to the second. */
export const useServerNow = () =>
  useSyncExternalStore(subscribe, () => Math.floor(now / 1000) * 1000);
