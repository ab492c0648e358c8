import { lazy, Suspense, useState, type ComponentType } from "react";
import { Navigate, Route, Routes, useLocation, useNavigate } from "react-router";
import { useStatus } from "./api/takes";
import { HatchPattern } from "./charts/SmallRidge";
import { DropAnywhere } from "./places/takes/list/DropAnywhere";
import { useTheme } from "./theme/useTheme";
import { Trail } from "./Trail";
import { PLACES } from "./trailPlaces";
import { ErrorBoundary } from "./ui/ErrorBoundary";
import { useArrival } from "./ui/useArrival";
import { useNotices } from "./ui/notices";
import { useOffline } from "./ui/useOffline";
import { TroubleStrip } from "./ui/TroubleStrip";
import { useIsWholeScreen } from "./ui/wholeScreen";
import { useKeys } from "./keys/useKeys";

/** A page of a place, loaded when it is visited. */
function page<Name extends string>(load: () => Promise<Record<Name, ComponentType>>, name: Name) {
  return lazy<ComponentType>(() => load().then((room) => ({ default: room[name] })));
}

const SessionPlanner = page(() => import("./places/plan/SessionPlanner"), "SessionPlanner");
const WeeksPage = page(() => import("./places/plan/WeeksPage"), "WeeksPage");
const BriefsPage = page(() => import("./places/plan/BriefsPage"), "BriefsPage");
const DrillsPage = page(() => import("./places/plan/drills/DrillsPage"), "DrillsPage");
const DrillPage = page(() => import("./places/plan/drills/DrillPage"), "DrillPage");
const PracticePage = page(() => import("./places/practice/PracticePage"), "PracticePage");
const SheetPage = page(() => import("./places/practice/SheetPage"), "SheetPage");
const SessionPage = page(() => import("./places/practice/SessionPage"), "SessionPage");
const KitPage = page(() => import("./places/kit/KitPage"), "KitPage");
const ItemRoute = page(() => import("./places/kit/ItemRoute"), "ItemRoute");
const BenchPage = page(() => import("./places/kit/bench/BenchPage"), "BenchPage");
const CardPage = page(() => import("./places/kit/bench/CardPage"), "CardPage");
const TakesPage = page(() => import("./places/takes/list/TakesPage"), "TakesPage");
const TakePage = page(() => import("./places/takes/one/TakePage"), "TakePage");
const ComparePage = page(() => import("./places/takes/compare/ComparePage"), "ComparePage");
const TrialsPage = page(() => import("./places/findings/trials/TrialsPage"), "TrialsPage");
const PickedTrialPage = page(
  () => import("./places/findings/trials/PickedTrialPage"),
  "PickedTrialPage",
);
const ShotPage = page(() => import("./places/findings/shot/ShotPage"), "ShotPage");
const LimitsPage = page(() => import("./places/findings/limits/LimitsPage"), "LimitsPage");
const HandPage = page(() => import("./places/findings/hand/HandPage"), "HandPage");
const ProgressPage = page(() => import("./places/findings/progress/ProgressPage"), "ProgressPage");
const NotedPage = page(() => import("./places/findings/noted/NotedPage"), "NotedPage");
const FilmPage = page(() => import("./places/findings/film/FilmPage"), "FilmPage");
const EyePage = page(() => import("./places/findings/eye/EyePage"), "EyePage");
const BlindPage = page(() => import("./places/findings/eye/BlindPage"), "BlindPage");
const KeysDialog = lazy(() =>
  import("./keys/KeysDialog").then((room) => ({ default: room.KeysDialog })),
);
const SlatesPage = page(() => import("./places/practice/SlatesPage"), "SlatesPage");
const FieldPage = page(() => import("./places/field/FieldPage"), "FieldPage");
const CheckPage = page(() => import("./places/field/CheckPage"), "CheckPage");
const RigPage = page(() => import("./places/field/RigPage"), "RigPage");
const LivePage = page(() => import("./places/field/live/LivePage"), "LivePage");
const OutingsPage = page(() => import("./places/sequence/OutingsPage"), "OutingsPage");
const OutingPage = page(() => import("./places/sequence/OutingPage"), "OutingPage");
const JoinedPage = page(() => import("./places/sequence/JoinedPage"), "JoinedPage");
const OutingSheet = page(() => import("./places/sequence/OutingSheet"), "OutingSheet");
const SpotPage = page(() => import("./places/sequence/SpotPage"), "SpotPage");
const SettingsPage = page(() => import("./places/settings/SettingsPage"), "SettingsPage");

/** Where one begins: in the field on a paired phone, at the takes elsewhere. */
function FirstPage() {
  const status = useStatus();
  if (status.isLoading) return <p className="p-8 text-stone">Opening…</p>;
  return <Navigate to={status.data?.phone == null ? "/takes" : "/field"} replace />;
}

/** The frame around every place. */
export function App() {
  const [theme, changeTheme] = useTheme();
  const [keysOpen, setKeysOpen] = useState(false);
  const navigate = useNavigate();
  const { pathname } = useLocation();
  const { undoLast } = useNotices();
  const whole = useIsWholeScreen();
  useArrival(pathname);
  useOffline(useStatus().data?.phone != null);
  useKeys(
    {
      ...Object.fromEntries(
        PLACES.map(({ key, to, words }) => [`Go to ${words}`, { [key]: () => void navigate(to) }]),
      ),
      "Light or dusk theme": { t: changeTheme },
      "Undo what can be undone": { z: undoLast },
      "These keys": { "?": () => setKeysOpen(true) },
    },
    { everywhere: true },
  );
  return (
    <DropAnywhere>
      <a
        href="#main"
        className="sr-only bg-paper p-2 focus:not-sr-only focus:absolute focus:z-(--layer-notice)"
      >
        Skip to the page
      </a>
      <HatchPattern />
      {!whole && <Trail theme={theme} onTheme={changeTheme} onKeys={() => setKeysOpen(true)} />}
      <TroubleStrip />
      <main id="main" tabIndex={-1} className="outline-none">
        <ErrorBoundary key={pathname}>
          <Suspense fallback={<p className="p-8 text-stone">Opening…</p>}>
            <Routes>
              <Route path="/plan" element={<SessionPlanner />} />
              <Route path="/plan/weeks" element={<WeeksPage />} />
              <Route path="/plan/drills" element={<DrillsPage />} />
              <Route path="/plan/drills/:key" element={<DrillPage />} />
              <Route path="/plan/briefs" element={<BriefsPage />} />
              <Route path="/practice" element={<PracticePage />} />
              <Route path="/practice/:id" element={<SessionPage />} />
              <Route path="/practice/:id/sheet" element={<SheetPage />} />
              <Route path="/kit" element={<KitPage />} />
              <Route path="/kit/setups/:id" element={<BenchPage />} />
              <Route path="/kit/setups/:id/card" element={<CardPage />} />
              <Route path="/kit/:kind/:id" element={<ItemRoute />} />
              <Route path="/takes" element={<TakesPage />} />
              <Route path="/takes/compare" element={<ComparePage />} />
              <Route path="/takes/:id" element={<TakePage />} />
              <Route path="/findings" element={<TrialsPage />} />
              <Route path="/findings/picked" element={<PickedTrialPage />} />
              <Route path="/findings/shot" element={<ShotPage />} />
              <Route path="/findings/limits" element={<LimitsPage />} />
              <Route path="/findings/progress" element={<ProgressPage />} />
              <Route path="/findings/felt" element={<NotedPage />} />
              <Route path="/findings/hand" element={<HandPage />} />
              <Route path="/findings/film" element={<FilmPage />} />
              <Route path="/findings/eye" element={<EyePage />} />
              <Route path="/findings/eye/blind" element={<BlindPage />} />
              <Route path="/practice/:id/slates" element={<SlatesPage />} />
              <Route path="/sequence" element={<OutingsPage />} />
              <Route path="/sequence/:id" element={<OutingPage />} />
              <Route path="/sequence/:id/joined" element={<JoinedPage />} />
              <Route path="/sequence/:id/sheet" element={<OutingSheet />} />
              <Route path="/sequence/:id/spot" element={<SpotPage />} />
              <Route path="/field" element={<FieldPage />} />
              <Route path="/field/check" element={<CheckPage />} />
              <Route path="/field/rig" element={<RigPage />} />
              <Route path="/field/live" element={<LivePage />} />
              <Route path="/settings" element={<SettingsPage />} />
              <Route path="*" element={<FirstPage />} />
            </Routes>
          </Suspense>
        </ErrorBoundary>
      </main>
      <Suspense>{keysOpen && <KeysDialog onClose={() => setKeysOpen(false)} />}</Suspense>
    </DropAnywhere>
  );
}
