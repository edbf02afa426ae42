import { useEffect, useState } from "react";

export interface CanvasTheme {
  ground: string;
  ink: string;
  soft: string;
  line: string;
  accent: string;
  wash: string;
  panel: string;
  warn: string;
}

const read = (): CanvasTheme => {
  const style = getComputedStyle(document.documentElement);
  const value = (name: string) => style.getPropertyValue(name).trim();
  return {
    ground: value("--ground"),
    ink: value("--ink"),
    soft: value("--soft"),
    line: value("--line"),
    accent: value("--accent"),
    wash: value("--accent-wash"),
    panel: value("--panel"),
    warn: value("--warn"),
  };
};

/** The theme's colours for drawing on a canvas, which knows no custom properties; null on the server. */
export function useTheme(): CanvasTheme | null {
  const [theme, setTheme] = useState<CanvasTheme | null>(null);
  useEffect(() => {
    const dark = window.matchMedia("(prefers-color-scheme: dark)");
    const update = () => setTheme(read());
    update();
    dark.addEventListener("change", update);
    return () => dark.removeEventListener("change", update);
  }, []);
  return theme;
}
