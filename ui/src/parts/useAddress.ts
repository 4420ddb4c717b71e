import { useSearchParams } from "react-router";

/** What the address says behind its question mark; undefined takes a word out of it. */
export function useAddress() {
  const [search, setSearch] = useSearchParams();
  const show = (next: Record<string, string | undefined>, replace = true) => {
    const now = asked();
    for (const [k, v] of Object.entries(next)) {
      if (v === undefined) now.delete(k);
      else now.set(k, v);
    }
    setSearch(now, { replace });
  };
  /** One of some words, or the usual one. */
  const one = <T extends string>(name: string, words: Record<T, unknown>, usual: T): T => {
    const v = search.get(name);
    return v && v in words ? (v as T) : usual;
  };
  return { search, show, one };
}

/** What was asked for last, which a slow page may not show yet: keys pressed quickly go on from there. */
export const asked = () => new URLSearchParams(window.location.search);
