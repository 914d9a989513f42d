import { useEffect, useState } from "react";
import type { Tone } from "./theme";

/** Light or dark, as the system wishes. */
export function useTone(): Tone {
  const query = window.matchMedia("(prefers-color-scheme: dark)");
  const [tone, setTone] = useState<Tone>(query.matches ? "dark" : "light");
  useEffect(() => {
    const onChange = () => setTone(query.matches ? "dark" : "light");
    query.addEventListener("change", onChange);
    return () => query.removeEventListener("change", onChange);
  }, [query]);
  useEffect(() => {
    document.documentElement.dataset.theme = tone;
  }, [tone]);
  return tone;
}
