/** Whether a key is meant for something else: a field that is typed in, the browser or the system. */
export const typing = (e: KeyboardEvent) =>
  (e.target instanceof HTMLElement && /^(INPUT|TEXTAREA|SELECT)$/.test(e.target.tagName)) ||
  e.ctrlKey ||
  e.metaKey ||
  e.altKey;
