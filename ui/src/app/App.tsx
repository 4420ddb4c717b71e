import { useQuery } from "@tanstack/react-query";
import { Suspense, useEffect, useLayoutEffect } from "react";
import { Navigate, Route, Routes } from "react-router";
import { hearOfChanges } from "../api/changes";
import { sessionQuery, wheelsQuery } from "../api/queries";
import { enter } from "../api/waiting";
import { useScreen } from "../drawing/screen";
import { Waiting } from "../parts/Waiting";
import type { KeptPlace } from "../parts/WheelMenu";
import { WhoPage } from "../who/WhoPage";
import {
  BeginPage,
  BenchPlace,
  BesidePage,
  BoxPaperPage,
  BoxPlace,
  ComparePaperPage,
  ComparePlace,
  fetchPlaces,
  LogPlace,
  OwnPage,
  PairingsPlace,
  PaperPage,
  PathPlace,
  PracticePlace,
  ReadingsPlace,
  RedrawPage,
  SittingLog,
  SittingPlace,
  SystemPlace,
  WheelPlace,
} from "./places";

export function App() {
  const session = useQuery(sessionQuery);
  const wide = useScreen();
  const painter = session.data?.painter;
  const painting = !!painter;
  const known = session.data !== undefined;
  // Before anything below is drawn that waits or asks.
  useLayoutEffect(() => {
    if (known) enter(painter ? { id: painter.id, name: painter.name } : null);
  }, [known, painter?.id, painter?.name]); // eslint-disable-line react-hooks/exhaustive-deps -- a painter is who they are
  useEffect(() => (painting ? hearOfChanges() : undefined), [painting, painter?.id]);
  useEffect(() => {
    if (painting) fetchPlaces();
  }, [painting]);
  if (!session.data) return <Waiting failing={session.failureCount > 0} />;
  if (!session.data.painter) return <WhoPage local={session.data.local} />;
  return (
    <Suspense fallback={<Waiting failing={false} />}>
      <Routes key={String(wide)}>
        <Route path="/wheel/:id" element={<WheelPlace painter={session.data.painter} />} />
        <Route path="/begin" element={<BeginPage painter={session.data.painter} />} />
        <Route path="/system/:id" element={<SystemPlace painter={session.data.painter} />} />
        <Route path="/system" element={<LastWheel place="system" />} />
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
        <Route path="/bench" element={<LastWheel place="bench" />} />
        <Route path="/path" element={<LastWheel place="path" />} />
        <Route path="/pairings" element={<LastWheel place="pairings" />} />
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
        <Route path="*" element={<LastWheel place="wheel" />} />
      </Routes>
    </Suspense>
  );
}

/** The wheel that was worked on last or, with none, the way to a first one. */
function LastWheel({ place }: { place: KeptPlace }) {
  const wheels = useQuery(wheelsQuery);
  if (!wheels.data) return <Waiting failing={wheels.failureCount > 0} />;
  const last = wheels.data.find((w) => !w.archived) ?? wheels.data[0];
  return <Navigate to={last ? `/${place}/${last.id}` : "/begin"} replace />;
}
