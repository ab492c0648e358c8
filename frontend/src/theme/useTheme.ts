import { kept } from "../api/browserStore";
import { useCallback, useEffect, useState } from "react";

export type Theme = "light" | "dusk";
const KEY = "ridgewind-theme";

function firstTheme(): Theme {
  const before = kept.get(KEY);
  if (before === "light" || before === "dusk") return before;
  return matchMedia("(prefers-color-scheme: dark)").matches ? "dusk" : "light";
}

/** The theme, kept for the next visit, and a way to change it. */
export function useTheme(): [Theme, () => void] {
  const [theme, setTheme] = useState<Theme>(firstTheme);
  useEffect(() => {
    document.documentElement.dataset["theme"] = theme;
    kept.set(KEY, theme);
  }, [theme]);
  return [theme, useCallback(() => setTheme((now) => (now === "light" ? "dusk" : "light")), [])];
}
