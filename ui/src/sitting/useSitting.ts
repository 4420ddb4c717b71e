import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useMemo, useState, useSyncExternalStore } from "react";
import { answer, client, Refused, type Schemas, type Sitting } from "../api/client";
import { sittingQuery } from "../api/queries";
import { clockOffset, offsetOf } from "../api/serverClock";
import { answered, changesAt, inTurn, newId } from "../api/writing";

export type SittingEvent = Schemas["SittingEvent"];
/** What was done, without what the device adds. */
export type Done = Pick<SittingEvent, "kind"> &
  Partial<
    Pick<SittingEvent, "region" | "well" | "brush" | "thorough" | "took" | "text" | "undoes">
  > & { /** Milliseconds before now. */ ago?: number };

const device = (() => {
  const key = "gyrophane.device";
  const known = localStorage.getItem(key) ?? newId();
  localStorage.setItem(key, known);
  return known;
})();

/** The next number of what this device tells. */
function nextNumber() {
  const key = "gyrophane.device.number";
  const next = (Number(localStorage.getItem(key)) || 0) + 1;
  localStorage.setItem(key, String(next));
  return next;
}

/** So many events are told at once. */
const mostAtOnce = 400;

/**
 * A sitting as it stands, with what was done here and has not reached the server yet. That is kept in
 * the browser, sent in order, and sent again until it is answered; the server knows it by its ids.
 */
export function useSitting(id: number) {
  const queries = useQueryClient();
  const query = useQuery(sittingQuery(id));
  const unsent = useMemo(() => changesAt<SittingEvent>("gyrophane.sittings"), []);
  const held = useSyncExternalStore(unsent.subscribe, unsent.get)[String(id)];
  const waiting = useSyncExternalStore(unsent.subscribe, unsent.waiting);
  const [refused, setRefused] = useState<string>();
  const key = String(id);

  const send = useCallback(
    (eventId: string) => {
      if (!unsent.take(eventId)) return;
      void inTurn(`sitting ${key}`, async () => {
        const post = async (events: SittingEvent[]) => {
          const asked = Date.now();
          const now = await answered(
            () =>
              answer(
                client.POST("/api/sittings/{id}/events", {
                  params: { path: { id: Number(key) } },
                  body: { events },
                }),
              ),
            unsent.setWaiting,
          );
          offsetOf(now.now, asked);
          queries.setQueryData(sittingQuery(Number(key)).queryKey, now);
          const sent = new Set(events.map((e) => e.id));
          const left = unsent.get()[key]?.changes.filter((c) => !sent.has(c.id)) ?? [];
          unsent.hold(key, { version: 0, changes: left });
        };
        for (;;) {
          const events = (unsent.get()[key]?.changes ?? [])
            .slice(0, mostAtOnce)
            .map((c) => c.content);
          if (!events.some((e) => e.id === eventId)) return; // it went with others
          try {
            await post(events);
          } catch {
            // One that the server will never take does not take the others with it.
            for (const one of events) {
              try {
                await post([one]);
              } catch (e) {
                setRefused(e instanceof Refused ? e.message : String(e));
                const left = unsent.get()[key]?.changes.filter((c) => c.id !== one.id) ?? [];
                unsent.hold(key, { version: 0, changes: left });
              }
            }
          }
        }
      });
    },
    [unsent, key, queries],
  );

  // What an earlier page has left is sent by this one.
  useEffect(() => {
    void unsent.inherit().then(() => unsent.get()[key]?.changes.forEach((c) => send(c.id)));
  }, [unsent, key, send]);

  // Other devices are heard of as it happens; without a connection the browser tries again.
  useEffect(() => {
    const stream = new EventSource(`/api/sittings/${id}/changes`);
    stream.onmessage = () => void queries.invalidateQueries(sittingQuery(id));
    return () => stream.close();
  }, [id, queries]);

  /** Takes down what was done, in order. */
  const tell = (...done: Done[]) => {
    setRefused(undefined);
    const revision = query.data?.revision ?? 0;
    const events = done.map(({ ago = 0, ...of }) => ({
      ...of,
      id: newId(),
      at: Math.round(Date.now() - ago),
      offsetMs: Math.round(clockOffset()),
      device,
      number: nextNumber(),
      revision,
    }));
    const before = unsent.get()[key]?.changes ?? [];
    unsent.hold(key, {
      version: 0,
      changes: [...before, ...events.map((content) => ({ id: content.id, content }))],
    });
    events.slice(-1).forEach((e) => send(e.id));
  };

  const pending = useMemo(() => held?.changes.map((c) => c.content) ?? [], [held]);
  const sitting = useMemo(
    () => query.data && withPending(query.data, pending),
    [query.data, pending],
  );
  return { query, sitting, tell, pending: pending.length, waiting, refused };
}

/**
 * A sitting as it will stand when what waits has arrived, so far as a page can know: the plan stays
 * the one that the server made last.
 */
export function withPending(of: Sitting, pending: SittingEvent[]): Sitting {
  const gone = new Set(pending.flatMap((e) => (e.undoes ? [e.undoes] : [])));
  const counts = pending.filter((e) => !gone.has(e.id) && e.kind !== "undone");
  if (pending.length === 0) return of;
  const out: Sitting = { ...of, places: of.places.map((p) => ({ ...p })) };
  const index = new Map(of.plan.regions.map((r, i) => [r.id, i]));
  for (const e of counts) {
    const i = e.region === undefined ? undefined : index.get(e.region);
    const place = i === undefined ? undefined : out.places[i];
    const at = e.at + e.offsetMs;
    switch (e.kind) {
      case "painted":
        if (!place) break;
        place.coats++;
        place.painted = at;
        place.dry = at + dryingOf(of, i!);
        place.skipped = false;
        break;
      case "skipped":
        if (place) place.skipped = true;
        break;
      case "tested":
        if (place) place.tested = true;
        break;
      case "laid out":
        out.laid = true;
        break;
      case "paused":
        out.paused = at;
        break;
      case "resumed":
        out.paused = 0;
        break;
      case "ended":
        out.ended = true;
        break;
    }
    if (e.kind !== "noted") {
      out.last = e.id;
      out.lastSays = place ? `${e.kind}: ${of.plan.regions[i!]!.label}` : e.kind;
    }
  }
  const painted = (region: number) => {
    const p = out.places[region]!;
    return p.coats > 0 || p.skipped;
  };
  out.plan = {
    ...of.plan,
    order: of.plan.order.filter((r) => !painted(r)),
    actions: of.plan.actions.filter((a) => a.region < 0 || !painted(a.region)),
  };
  out.done = out.places.every((p) => p.coats > 0 || p.skipped);
  return out;
}

/** How long a region stays wet, in milliseconds, as the plan has it. */
function dryingOf(of: Sitting, region: number) {
  const paint = of.plan.actions.find((a) => a.kind === "paint" && a.region === region);
  const any = paint ?? of.plan.actions.find((a) => a.kind === "paint");
  return any ? Math.max(0, any.dry - any.end) * 60000 : 0;
}
