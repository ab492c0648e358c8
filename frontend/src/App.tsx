import { useState } from "react";
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
        <Routes>
          <Route path="/takes" element={<TakesPage />} />
          <Route path="/takes/:id" element={<TakePage />} />
          <Route path="*" element={<Navigate to="/takes" replace />} />
        </Routes>
      </main>
      <KeysDialog open={keysOpen} onClose={() => setKeysOpen(false)} />
    </DropAnywhere>
  );
}
