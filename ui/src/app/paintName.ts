/** A paint's name, and what else it is called: the words in brackets. */
export function paintName(full: string): { name: string; also?: string } {
  const [, before = full, also, after = ""] = /^(.*?) \(([^)]*)\)(.*)$/.exec(full) ?? [];
  return { name: before + after, also };
}
