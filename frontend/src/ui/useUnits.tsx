import { kept } from "../api/browserStore";
import { createContext, useCallback, useContext, useMemo, useState, type ReactNode } from "react";
import { withUnit, type Quantity, type UnitSystem } from "../units";

const KEY = "ridgewind-units";
export type InUnits = (quantity: Quantity, value: number | null | undefined) => string;
type Units = {
  system: UnitSystem;
  change: (system: UnitSystem) => void;
  inUnits: InUnits;
};
const Context = createContext<Units | null>(null);

/** Metric or imperial lengths and weights, kept for the next visit. */
export function UnitsProvider({ children }: { children: ReactNode }) {
  const [system, setSystem] = useState<UnitSystem>(() =>
    kept.get(KEY) === "imperial" ? "imperial" : "metric",
  );
  const change = useCallback((next: UnitSystem) => {
    kept.set(KEY, next);
    setSystem(next);
  }, []);
  const value = useMemo<Units>(
    () => ({ system, change, inUnits: (quantity, value) => withUnit(quantity, value, system) }),
    [system, change],
  );
  return <Context value={value}>{children}</Context>;
}

export function useUnits(): Units {
  const units = useContext(Context);
  if (!units) throw new Error("useUnits needs a UnitsProvider");
  return units;
}
