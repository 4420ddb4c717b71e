import { lazy, type ComponentType } from "react";
import type { Profile } from "../api/client";

type Place = ComponentType<{ painter: Profile }>;

const again = 2000; // ms

/** Loads a piece of the application, however often the connection fails meanwhile. */
async function load<T>(piece: () => Promise<T>): Promise<T> {
  for (;;) {
    try {
      return await piece();
    } catch {
      await new Promise((wake) => setTimeout(wake, again));
    }
  }
}

const pieces: (() => Promise<unknown>)[] = [];

/** A place whose code comes when it is entered, or before that when there is time. */
function place(piece: () => Promise<Place>) {
  pieces.push(piece);
  return lazy(() => load(async () => ({ default: await piece() })));
}

export const BoxPlace = place(async () => (await import("../box/BoxPlace")).BoxPlace);
export const OwnPage = place(async () => (await import("../box/OwnPage")).OwnPage);
export const SystemPlace = place(async () => (await import("../system/SystemPlace")).SystemPlace);
export const BeginPage = place(async () => (await import("../wheel/BeginPage")).BeginPage);
export const WheelPlace = place(async () => (await import("../wheel/WheelPlace")).WheelPlace);
export const PairingsPlace = place(
  async () => (await import("../pairing/PairingsPlace")).PairingsPlace,
);
export const PracticePlace = place(
  async () => (await import("../journal/PracticePlace")).PracticePlace,
);
export const PathPlace = place(async () => (await import("../path/PathPlace")).PathPlace);
export const BenchPlace = place(async () => (await import("../bench/BenchPlace")).BenchPlace);
export const SittingPlace = place(
  async () => (await import("../sitting/SittingPlace")).SittingPlace,
);
export const ReadingsPlace = place(
  async () => (await import("../sitting/ReadingsPlace")).ReadingsPlace,
);
export const LogPlace = place(async () => (await import("../log/LogPlace")).LogPlace);
export const BesidePage = place(async () => (await import("../log/BesidePage")).BesidePage);
export const RedrawPage = place(async () => (await import("../log/RedrawPage")).RedrawPage);
export const SittingLog = place(async () => (await import("../log/SittingLog")).SittingLog);
export const PaperPage = place(async () => (await import("../sheets/PaperPage")).PaperPage);
export const BoxPaperPage = place(async () => (await import("../sheets/OtherPapers")).BoxPaperPage);
export const ComparePaperPage = place(
  async () => (await import("../sheets/OtherPapers")).ComparePaperPage,
);
export const WordsPage = place(async () => (await import("./WordsPage")).WordsPage);
export const ComparePlace = place(
  async () => (await import("../compare/ComparePlace")).ComparePlace,
);

/** Fetches the other places once the first one is shown, so that they open without a connection. */
export function fetchPlaces() {
  const all = () => pieces.forEach((piece) => void load(piece));
  if ("requestIdleCallback" in window) window.requestIdleCallback(all);
  else setTimeout(all, 500);
}
