import { lazy, Suspense, useState } from "react";
import { Navigate, Route, Routes, useNavigate } from "react-router";
import { HatchPattern } from "./charts/SmallRidge";
import { KeysDialog } from "./KeysDialog";
import { TakePage } from "./places/take/TakePage";
import { DropAnywhere } from "./places/takes/DropAnywhere";
import { TakesPage } from "./places/takes/TakesPage";
import { useTheme } from "./theme/useTheme";
import { PLACES, Trail } from "./Trail";
import { useNotices } from "./ui/notices";
import { useKeys } from "./ui/useKeys";

/** Places that are not the first thing seen are loaded when they are opened. */
const SessionPlanner = lazy(() =>
  import("./places/plan/SessionPlanner").then((room) => ({ default: room.SessionPlanner })),
);
const WeeksPage = lazy(() =>
  import("./places/plan/WeeksPage").then((room) => ({ default: room.WeeksPage })),
);
const BriefsPage = lazy(() =>
  import("./places/plan/BriefsPage").then((room) => ({ default: room.BriefsPage })),
);
const DrillsPage = lazy(() =>
  import("./places/drills/DrillsPage").then((room) => ({ default: room.DrillsPage })),
);
const DrillPage = lazy(() =>
  import("./places/drills/DrillPage").then((room) => ({ default: room.DrillPage })),
);
const PracticePage = lazy(() =>
  import("./places/practice/PracticePage").then((room) => ({ default: room.PracticePage })),
);
const SessionPage = lazy(() =>
  import("./places/practice/SessionPage").then((room) => ({ default: room.SessionPage })),
);
const KitPage = lazy(() =>
  import("./places/kit/KitPage").then((room) => ({ default: room.KitPage })),
);
const ItemRoute = lazy(() =>
  import("./places/kit/ItemRoute").then((room) => ({ default: room.ItemRoute })),
);
const BenchPage = lazy(() =>
  import("./places/bench/BenchPage").then((room) => ({ default: room.BenchPage })),
);
const CardPage = lazy(() =>
  import("./places/bench/CardPage").then((room) => ({ default: room.CardPage })),
);
const ComparePage = lazy(() =>
  import("./places/compare/ComparePage").then((room) => ({ default: room.ComparePage })),
);
const EyePage = lazy(() =>
  import("./places/findings/EyePage").then((room) => ({ default: room.EyePage })),
);
const BlindPage = lazy(() =>
  import("./places/findings/BlindPage").then((room) => ({ default: room.BlindPage })),
);
const SettingsPage = lazy(() =>
  import("./places/settings/SettingsPage").then((room) => ({ default: room.SettingsPage })),
);

/** The frame around every place. */
export function App() {
  const [theme, changeTheme] = useTheme();
  const [keysOpen, setKeysOpen] = useState(false);
  const navigate = useNavigate();
  const { undoLast } = useNotices();
  useKeys({
    "?": () => setKeysOpen(true),
    t: changeTheme,
    z: undoLast,
    ...Object.fromEntries(PLACES.map((place) => [place.key, () => void navigate(place.to)])),
  });
  return (
    <DropAnywhere>
      <a href="#main" className="sr-only bg-paper p-2 focus:not-sr-only focus:absolute focus:z-50">
        Skip to the page
      </a>
      <HatchPattern />
      <Trail theme={theme} onTheme={changeTheme} onKeys={() => setKeysOpen(true)} />
      <main id="main" tabIndex={-1} className="outline-none">
        <Suspense fallback={<p className="p-8 text-stone">Opening…</p>}>
          <Routes>
            <Route path="/plan" element={<SessionPlanner />} />
            <Route path="/plan/weeks" element={<WeeksPage />} />
            <Route path="/plan/drills" element={<DrillsPage />} />
            <Route path="/plan/drills/:key" element={<DrillPage />} />
            <Route path="/plan/briefs" element={<BriefsPage />} />
            <Route path="/practice" element={<PracticePage />} />
            <Route path="/practice/:id" element={<SessionPage />} />
            <Route path="/kit" element={<KitPage />} />
            <Route path="/kit/setups/:id" element={<BenchPage />} />
            <Route path="/kit/setups/:id/card" element={<CardPage />} />
            <Route path="/kit/:kind/:id" element={<ItemRoute />} />
            <Route path="/takes" element={<TakesPage />} />
            <Route path="/takes/compare" element={<ComparePage />} />
            <Route path="/takes/:id" element={<TakePage />} />
            <Route path="/findings" element={<EyePage />} />
            <Route path="/findings/blind" element={<BlindPage />} />
            <Route path="/settings" element={<SettingsPage />} />
            <Route path="*" element={<Navigate to="/takes" replace />} />
          </Routes>
        </Suspense>
      </main>
      <KeysDialog open={keysOpen} onClose={() => setKeysOpen(false)} />
    </DropAnywhere>
  );
}
