import { createContext, useCallback, useContext, useMemo, useState, type ReactNode } from "react";
import type { Units } from "../units/units";
import { store, stored } from "./storage";

export type ThemeName = "paper" | "dark";

interface Preferences {
  units: Units;
  theme: ThemeName;
  setUnits: (units: Units) => void;
  setTheme: (theme: ThemeName) => void;
}

const PreferencesContext = createContext<Preferences | null>(null);

/** Units and theme: of this browser, not of a shot. */
export function PreferencesProvider({ children }: { children: ReactNode }) {
  const [units, setUnits] = useKept<Units>("just-plane.units", ["mm", "in"]);
  const [theme, setTheme] = useKept<ThemeName>(
    "just-plane.theme",
    systemIsDark() ? ["dark", "paper"] : ["paper", "dark"],
  );
  const value = useMemo(() => ({ units, theme, setUnits, setTheme }), [units, theme, setUnits, setTheme]);
  return <PreferencesContext value={value}>{children}</PreferencesContext>;
}

export function usePreferences(): Preferences {
  const value = useContext(PreferencesContext);
  if (value === null) throw new Error("usePreferences needs a PreferencesProvider around it");
  return value;
}

function systemIsDark() {
  return window.matchMedia("(prefers-color-scheme: dark)").matches;
}

/** A choice kept in this browser once it is made; the first of the values is the default. */
function useKept<T extends string>(key: string, values: T[]): [T, (value: T) => void] {
  const [value, setValue] = useState<T>(() => {
    const kept = stored("local", key);
    return values.find((candidate) => candidate === kept) ?? (values[0] as T);
  });
  const choose = useCallback(
    (next: T) => {
      store("local", key, next);
      setValue(next);
    },
    [key],
  );
  return [value, choose];
}
