import { useQuery } from "@tanstack/react-query";
import { useMemo } from "react";
import type { Schemas, Sitting } from "../api/client";
import type { Entry } from "../api/outbox";
import { sittingQuery } from "../api/queries";
import { clockOffset } from "../api/serverClock";
import { outbox, sittingThing } from "../api/waiting";
import { newId } from "../api/writing";
import { useOutbox } from "../parts/useUnsaved";

export type SittingEvent = Schemas["SittingEvent"];
/** What was done, without what the device adds. */
export type Done = Pick<SittingEvent, "kind"> &
  Partial<
    Pick<
      SittingEvent,
      | "region"
      | "well"
      | "brush"
      | "thorough"
      | "took"
      | "adds"
      | "from"
      | "fromMl"
      | "ml"
      | "text"
      | "looks"
      | "undoes"
      | "aheadMs"
    >
  >;

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

/**
 * A sitting as it stands, with what was tapped here and has not reached the server yet: that waits in
 * the outbox.
 */
export function useSitting(id: number) {
  const query = useQuery(sittingQuery(id));
  const { lines, lost, full } = useOutbox();
  const line = lines[sittingThing(id)];

  /** Takes down what one tap tells, in order. */
  const tell = (...done: Done[]) => {
    const { plan, revision = 0 } = query.data ?? {};
    const tap = newId();
    const at = Date.now();
    const entries = done.map((of): Entry => {
      const event: SittingEvent = {
        ...of,
        id: newId(),
        tap,
        at,
        offsetMs: Math.round(clockOffset()),
        device,
        number: nextNumber(),
        revision,
      };
      const where = plan?.regions.find((r) => r.id === of.region)?.label;
      const says = where ? `${of.kind}: ${where}` : of.text ? `${of.kind}: ${of.text}` : of.kind;
      return { id: event.id, body: event, says, at, group: tap, needs: of.undoes };
    });
    outbox.hold(sittingThing(id), entries);
  };

  const pending = useMemo(() => line?.waiting.map((e) => e.body as SittingEvent) ?? [], [line]);
  const taps = new Set(pending.map((e) => e.tap)).size;
  const sitting = useMemo(
    () => query.data && withPending(query.data, pending),
    [query.data, pending],
  );
  /** Whether it waits to be sent what the pile of a place really took. */
  const waiting = (region: string) =>
    pending.some((e) => e.kind === "measured" && e.region === region);
  const aside = (line?.aside.length ?? 0) > 0;
  return { query, sitting, tell, pending: taps, waiting, aside, lost, full };
}

/** A sitting with the taps that wait laid over it: the server has said what each of them does. */
export function withPending(of: Sitting, pending: SittingEvent[]): Sitting {
  if (pending.length === 0) return of;
  const undone = new Set(pending.flatMap((e) => (e.undoes ? [e.undoes] : [])));
  const out: Sitting = { ...of, places: of.places.map((p) => ({ ...p })) };
  // What the server has, taken back from the last tap on.
  const kept = of.back.findIndex((b) => !undone.has(b.tap));
  const back = kept < 0 ? of.back : of.back.slice(0, kept);
  const then = back.at(-1);
  if (then) {
    const { places, laid, paused, ended } = then;
    Object.assign(out, { laid, paused, ended });
    places.forEach(({ region, ...p }) => Object.assign(out.places[region]!, p));
  }
  const index = new Map(of.plan.regions.map((r, i) => [r.id, i]));
  const waiting = pending.filter((e) => e.kind !== "undone" && !undone.has(e.tap ?? e.id));
  for (const e of waiting) {
    const at = e.at + e.offsetMs;
    const place = e.region === undefined ? undefined : out.places[index.get(e.region) ?? -1];
    switch (e.kind) {
      case "painted":
        if (!place) break;
        place.coats++;
        Object.assign(place, { painted: at, dry: at + place.driesMs, skipped: false, ran: false });
        break;
      case "ran":
        if (place?.coats)
          Object.assign(place, { ran: true, dry: Math.max(place.dry, at + place.driesMs) });
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
  }
  const left = (region: number) => isLeft(out.places[region]!);
  // A place that is to be painted once more has no step of the plan yet.
  const planned = new Set(of.steps.map((s) => s.region));
  const again = of.plan.regions.flatMap((_, i) => (left(i) && !planned.has(i) ? [i] : []));
  const untold = <S extends Sitting["steps"][number]>(s: S): S => ({
    ...s,
    before: s.before.filter((a) => !isTold(a.tells, waiting)),
    tells: s.tells?.filter((t) => t.kind === "painted" || !isTold([t], waiting)),
  });
  // The steps follow each other as they were planned while they are done in that order; else each is
  // what it is by itself, until the server says what the wells hold now.
  const done = of.steps.filter((s) => !left(s.region)).length;
  const asPlanned =
    of.steps.slice(0, done).every((s) => out.places[s.region]!.coats > 0) &&
    !waiting.some((e) => e.kind === "measured" || e.kind === "rinsed");
  const alone = new Map(of.instead.map((s) => [s.region, s]));
  out.steps = [
    ...again.map((region) => ({
      region,
      before: [],
      tells: of.places[region]!.tells.filter((t) => t.kind === "painted"),
    })),
    ...of.steps
      .filter((s) => left(s.region))
      .map((s) => untold(asPlanned ? s : (alone.get(s.region) ?? s))),
  ];
  out.instead = of.instead.filter((s) => left(s.region)).map(untold);
  out.places.forEach((p) => {
    p.tells = p.tells.filter((t) => t.kind === "painted" || !isTold([t], waiting));
  });
  out.back = [...tapsOf(waiting, of), ...of.back.slice(back.length)];
  out.plan = {
    ...of.plan,
    order: of.plan.order.filter(left),
    actions: of.plan.actions.filter((a) => a.region < 0 || left(a.region)),
  };
  out.done = !out.places.some(isLeft);
  return out;
}

/** Whether a place is still to be painted, or to be gone over. */
export const isLeft = (p: Sitting["places"][number]) => (p.coats === 0 && !p.skipped) || p.ran;

type Tell = Schemas["SittingTell"];

/** Whether what is told of an action waits already, by a tap on it alone since something was painted. */
function isTold(tells: Tell[], waiting: SittingEvent[]) {
  const since = waiting.slice(waiting.findLastIndex((e) => e.kind === "painted") + 1);
  const alone = since.filter((e) => since.every((o) => o === e || o.tap !== e.tap));
  return (
    tells.length > 0 &&
    tells.every((t) =>
      alone.some(
        (e) =>
          e.kind === t.kind &&
          e.region === t.region &&
          e.well === t.well &&
          e.brush === t.brush &&
          e.thorough === t.thorough,
      ),
    )
  );
}

/** The taps that wait as what can be taken back, the last first: each by what it told last. */
function tapsOf(waiting: SittingEvent[], of: Sitting): Sitting["back"] {
  const last = new Map(waiting.map((e) => [e.tap ?? e.id, e]));
  const { laid, paused, ended } = of;
  return [...last].reverse().map(([tap, e]) => {
    const where = of.plan.regions.find((r) => r.id === e.region)?.label;
    return { tap, says: where ? `${e.kind}: ${where}` : e.kind, places: [], laid, paused, ended };
  });
}
