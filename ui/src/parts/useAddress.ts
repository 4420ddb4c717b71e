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

/** A list in an address, with commas between; undefined where there is none. */
export const listIn = (search: URLSearchParams, name: string) =>
  search.get(name)?.split(",").filter(Boolean);

/**
 * A list of the address changed from what was asked for last, to be shown: of two quick presses
 * both count. Where the address has none the usual one stands, and then an empty one is kept.
 */
export function relisted(name: string, change: (now: string[]) => string[], usual?: string[]) {
  const list = change(listIn(asked(), name) ?? usual ?? []).join(",");
  return { [name]: list || (usual ? "" : undefined) };
}

/** A list with one more in it, or without it where it is there. */
export const toggled = (one: string) => (now: string[]) =>
  now.includes(one) ? now.filter((n) => n !== one) : [...now, one];

/** A list without one. */
export const without = (one: string) => (now: string[]) => now.filter((n) => n !== one);

/** A list with one more in it. */
export const joined = (one: string) => (now: string[]) => [...new Set([...now, one])];
