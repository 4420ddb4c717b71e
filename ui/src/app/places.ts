import { createElement, lazy, useState, type ComponentType } from "react";
import { matchPath } from "react-router";
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

/** Where an address leads that names no place. */
const wheel = "/wheel/:id";

type Piece = { path: string; fetch: () => Promise<Place> };

const pieces: Piece[] = [];

/**
 * A place whose code comes when it is entered, or before that when there is time. What has come is shown at once:
 * React holds what it waited for back for a while, so that nothing flickers.
 */
function place(path: string, piece: () => Promise<Place>) {
  let here: Place | undefined;
  const fetch = async () => (here ??= await load(piece));
  pieces.push({ path, fetch });
  const Waited = lazy(async () => ({ default: await fetch() }));
  return function Placed(props: { painter: Profile }) {
    const [As] = useState<Place>(() => here ?? Waited);
    return createElement(As, props);
  };
}

export const BoxPlace = place("/box", async () => (await import("../box/BoxPlace")).BoxPlace);
export const OwnPage = place("/box/new", async () => (await import("../box/OwnPage")).OwnPage);
export const SystemPlace = place(
  "/system/:id",
  async () => (await import("../system/SystemPlace")).SystemPlace,
);
export const BeginPage = place(
  "/begin",
  async () => (await import("../wheel/BeginPage")).BeginPage,
);
export const BringWheelPage = place(
  "/begin/file",
  async () => (await import("../mine/BringPage")).BringWheelPage,
);
export const BringSittingPage = place(
  "/log/file",
  async () => (await import("../mine/BringPage")).BringSittingPage,
);
export const WheelPlace = place(
  "/wheel/:id",
  async () => (await import("../wheel/WheelPlace")).WheelPlace,
);
export const PairingsPlace = place(
  "/pairings/:id",
  async () => (await import("../pairing/PairingsPlace")).PairingsPlace,
);
export const PracticePlace = place(
  "/pairings/:id/practice",
  async () => (await import("../journal/PracticePlace")).PracticePlace,
);
export const PathPlace = place(
  "/path/:id",
  async () => (await import("../path/PathPlace")).PathPlace,
);
export const BenchPlace = place(
  "/bench/:id",
  async () => (await import("../bench/BenchPlace")).BenchPlace,
);
export const SittingPlace = place(
  "/bench/sitting/:id",
  async () => (await import("../sitting/SittingPlace")).SittingPlace,
);
export const ReadingsPlace = place(
  "/bench/sitting/:id/readings",
  async () => (await import("../sitting/ReadingsPlace")).ReadingsPlace,
);
export const LogPlace = place("/log", async () => (await import("../log/LogPlace")).LogPlace);
export const BesidePage = place(
  "/log/:id/beside/:other",
  async () => (await import("../log/BesidePage")).BesidePage,
);
export const RedrawPage = place(
  "/log/redraw/:id",
  async () => (await import("../log/RedrawPage")).RedrawPage,
);
export const SittingLog = place(
  "/log/:id",
  async () => (await import("../log/SittingLog")).SittingLog,
);
export const PaperPage = place(
  "/bench/:id/paper",
  async () => (await import("../sheets/PaperPage")).PaperPage,
);
export const BoxPaperPage = place(
  "/box/paper",
  async () => (await import("../sheets/OtherPapers")).BoxPaperPage,
);
export const ComparePaperPage = place(
  "/compare/paper",
  async () => (await import("../sheets/OtherPapers")).ComparePaperPage,
);
export const PhonePage = place(
  "/phone",
  async () => (await import("../devices/PhonePage")).PhonePage,
);
export const BackupPage = place(
  "/mine",
  async () => (await import("../mine/BackupPage")).BackupPage,
);
export const ShowPage = place(
  "/show/:kind?/:thing?",
  async () => (await import("../showing/ShowPage")).ShowPage,
);
export const ClassPage = place(
  "/class/:wheel?",
  async () => (await import("../class/ClassPage")).ClassPage,
);
export const PaintedPage = place(
  "/class/painted/:id",
  async () => (await import("../class/PaintedPage")).PaintedPage,
);
export const ClassWall = place(
  "/wall/round/:id",
  async () => (await import("../class/ClassWall")).ClassWall,
);
export const WallPage = place(
  "/wall/:id/:other?",
  async () => (await import("../wheel/WallPage")).WallPage,
);
export const WordsPage = place("/words", async () => (await import("./WordsPage")).WordsPage);
export const ComparePlace = place(
  "/compare",
  async () => (await import("../compare/ComparePlace")).ComparePlace,
);

/** Fetches the place that an address leads to, a wheel where it names none; done when it can be shown. */
export async function fetchFirst(address: string) {
  const at = (path: string) => pieces.find((p) => matchPath(p.path, path));
  await (at(address) ?? at(wheel))?.fetch();
}

const idle = (then: () => void) => {
  if ("requestIdleCallback" in window) window.requestIdleCallback(then);
  else setTimeout(then, 200);
};

/** How long a place has been still before others are fetched, ms. */
const still = 1500;

/**
 * Fetches the other places once the first one is shown and nothing is asked for any more, one after the other when
 * there is time, so that they open without a connection. Answers how to leave off.
 */
export function fetchPlaces(asking: () => boolean): () => void {
  let left = false;
  const next = (at: number) => {
    if (left || at >= pieces.length) return;
    void pieces[at]!.fetch().then(() => idle(() => next(at + 1)));
  };
  const wait = () => {
    if (left) return;
    if (asking()) setTimeout(wait, still);
    else idle(() => next(0));
  };
  setTimeout(wait, still);
  return () => (left = true);
}
