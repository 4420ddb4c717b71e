import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import {
  lazy,
  Suspense,
  useEffect,
  useLayoutEffect,
  useState,
  type LazyExoticComponent,
  type ReactNode,
} from "react";
import { Navigate, Route, Routes, Link as To, useLocation } from "react-router";
import type { Profile } from "../api/client";
import { hearOfChanges } from "../api/changes";
import { sessionQuery, wheelsQuery } from "../api/queries";
import { shownAt } from "../api/shown";
import { togetherAt } from "../api/together";
import { enter } from "../api/waiting";
import { heldBy } from "../parts/holding";
import { Waiting } from "../parts/Waiting";
import type { KeptPlace } from "../parts/WheelMenu";
import { WhoPage } from "../who/WhoPage";
import { Shell } from "./Shell";
import { Squinting } from "./Squint";
import {
  BackupPage,
  BeginPage,
  BenchPlace,
  BesidePage,
  BoxPaperPage,
  BoxPlace,
  BringSittingPage,
  BringWheelPage,
  ClassPage,
  ClassWall,
  ComparePaperPage,
  ComparePlace,
  fetchFirst,
  fetchPlaces,
  LogPlace,
  OwnPage,
  PaintedPage,
  PairingsPlace,
  PaperPage,
  PathPlace,
  PhonePage,
  PracticePlace,
  ReadingsPlace,
  ShowPage,
  RedrawPage,
  SittingLog,
  SittingPlace,
  SystemPlace,
  WallPage,
  WheelPlace,
  WordsPage,
} from "./places";

/** Where a code leads that was shown at the desk. */
const comeInAt = "/come-in";
const ComeInPage = lazy(async () => ({
  default: (await import("../devices/ComeInPage")).ComeInPage,
}));

/** The pages of those who are not asked who they are: to whom something is shown, and who predict along with a class. */
const openPages: Record<string, LazyExoticComponent<() => ReactNode>> = {
  [shownAt]: lazy(async () => ({ default: (await import("./ShownPage")).ShownPage })),
  [togetherAt]: lazy(async () => ({
    default: (await import("../class/TogetherPage")).TogetherPage,
  })),
};
const OpenPage = openPages[window.location.pathname];

/** What the page was opened at is fetched while it is asked who paints. */
const firstPlace =
  OpenPage || window.location.pathname === comeInAt
    ? Promise.resolve()
    : fetchFirst(window.location.pathname);

const FirstWheel = lazy(async () => ({
  default: (await import("../wheel/FirstWheel")).FirstWheel,
}));

export function App() {
  return (
    <>
      <Squinting />
      {OpenPage ? (
        <Suspense fallback={<Waiting failing={false} />}>
          <OpenPage />
        </Suspense>
      ) : (
        <Pages />
      )}
    </>
  );
}

function Pages() {
  const session = useQuery(sessionQuery);
  const painter = session.data?.painter;
  const queries = useQueryClient();
  const { pathname } = useLocation();
  const [first, setFirst] = useState(false);
  useEffect(() => void firstPlace.then(() => setFirst(true)), []);
  const painting = !!painter;
  const known = session.data !== undefined;
  // Before anything below is drawn that waits or asks.
  useLayoutEffect(() => {
    if (!known) return;
    enter(painter ? { id: painter.id, name: painter.name } : null);
    heldBy(painter?.id ?? null);
  }, [known, painter?.id, painter?.name]); // eslint-disable-line react-hooks/exhaustive-deps -- a painter is who they are
  useEffect(() => (painting ? hearOfChanges() : undefined), [painting, painter?.id]);
  useEffect(() => {
    return painting ? fetchPlaces(() => queries.isFetching() > 0) : undefined;
  }, [painting, queries]);
  if (!session.data || !first) return <Waiting failing={session.failureCount > 0} />;
  if (pathname === comeInAt)
    return (
      <Suspense fallback={<Waiting failing={false} />}>
        <ComeInPage session={session.data} />
      </Suspense>
    );
  if (!session.data.painter)
    return (
      <WhoPage
        listener={session.data.listener}
        gone={session.data.gone}
        figure={
          <Suspense>
            <FirstWheel />
          </Suspense>
        }
      />
    );
  return (
    <Suspense fallback={<Waiting failing={false} />}>
      <Routes>
        <Route path="/wheel/:id" element={<WheelPlace painter={session.data.painter} />} />
        <Route path="/begin/file" element={<BringWheelPage painter={session.data.painter} />} />
        <Route path="/log/file" element={<BringSittingPage painter={session.data.painter} />} />
        <Route path="/begin" element={<BeginPage painter={session.data.painter} />} />
        <Route path="/system/:id" element={<SystemPlace painter={session.data.painter} />} />
        <Route
          path="/system"
          element={<LastWheel painter={session.data.painter} place="system" />}
        />
        <Route path="/pairings/:id" element={<PairingsPlace painter={session.data.painter} />} />
        <Route
          path="/pairings/:id/practice"
          element={<PracticePlace painter={session.data.painter} />}
        />
        <Route path="/path/:id" element={<PathPlace painter={session.data.painter} />} />
        <Route
          path="/bench/sitting/:id/readings"
          element={<ReadingsPlace painter={session.data.painter} />}
        />
        <Route
          path="/bench/sitting/:id"
          element={<SittingPlace painter={session.data.painter} />}
        />
        <Route path="/bench/:id" element={<BenchPlace painter={session.data.painter} />} />
        <Route path="/bench/:id/paper" element={<PaperPage painter={session.data.painter} />} />
        <Route path="/bench" element={<LastWheel painter={session.data.painter} place="bench" />} />
        <Route path="/path" element={<LastWheel painter={session.data.painter} place="path" />} />
        <Route
          path="/pairings"
          element={<LastWheel painter={session.data.painter} place="pairings" />}
        />
        <Route path="/compare" element={<ComparePlace painter={session.data.painter} />} />
        <Route path="/log" element={<LogPlace painter={session.data.painter} />} />
        <Route
          path="/log/:id/beside/:other"
          element={<BesidePage painter={session.data.painter} />}
        />
        <Route path="/log/redraw/:id" element={<RedrawPage painter={session.data.painter} />} />
        <Route path="/log/:id" element={<SittingLog painter={session.data.painter} />} />
        <Route
          path="/compare/paper"
          element={<ComparePaperPage painter={session.data.painter} />}
        />
        <Route path="/box/paper" element={<BoxPaperPage painter={session.data.painter} />} />
        <Route path="/box" element={<BoxPlace painter={session.data.painter} />} />
        <Route path="/box/new" element={<OwnPage painter={session.data.painter} />} />
        <Route path="/phone" element={<PhonePage painter={session.data.painter} />} />
        <Route path="/mine" element={<BackupPage painter={session.data.painter} />} />
        <Route path="/show/:kind?/:thing?" element={<ShowPage painter={session.data.painter} />} />
        <Route path="/class/painted/:id" element={<PaintedPage painter={session.data.painter} />} />
        <Route path="/class/:wheel?" element={<ClassPage painter={session.data.painter} />} />
        <Route path="/wall/round/:id" element={<ClassWall painter={session.data.painter} />} />
        <Route path="/wall/:id/:other?" element={<WallPage painter={session.data.painter} />} />
        <Route path="/words" element={<WordsPage painter={session.data.painter} />} />
        <Route path="*" element={<LastWheel painter={session.data.painter} place="wheel" />} />
      </Routes>
    </Suspense>
  );
}

/** The wheel that was worked on last; with none, what is missing and the way to a first one. */
function LastWheel({ painter, place }: { painter: Profile; place: KeptPlace }) {
  const wheels = useQuery(wheelsQuery);
  if (!wheels.data) return <Waiting failing={wheels.failureCount > 0} />;
  const last = wheels.data.find((w) => !w.archived) ?? wheels.data[0];
  if (last) return <Navigate to={`/${place}/${last.id}`} replace />;
  if (place === "wheel") return <Navigate to="/begin" replace />;
  return (
    <Shell painter={painter} title="No wheel yet">
      <Typography variant="h2">There is no wheel yet</Typography>
      <Typography sx={{ my: 2 }}>{without[place]}</Typography>
      <Button component={To} to="/begin" variant="contained" size="large">
        begin a wheel
      </Button>
    </Shell>
  );
}

/** What a place is about, where there is nothing for it to be about yet. */
const without: Record<Exclude<KeptPlace, "wheel">, string> = {
  system:
    "A system is the paints that a wheel is made of: a yellow, a red and a blue, or a pair of each.",
  pairings: "Pairings hold every two paints of a wheel against each other.",
  path: "A path is the way from one paint of a wheel to another.",
  bench: "At the bench a wheel is planned and painted.",
};
