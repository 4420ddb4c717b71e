const again = 500; // ms
/** How long a stream may be silent, ms: a server that is there says so every five seconds. */
const silence = 12_000;

/** What a stream of changes is asked with: its answer is read as it comes. */
type Ask = (signal: AbortSignal) => Promise<{ response: Response; data?: unknown }>;

/**
 * Hears a stream of changes until it is stopped or there is none any more: then, too, it is told. It is asked for anew
 * whenever it ends, is silent for too long, or the device wakes up: what was said meanwhile is told then.
 */
export function hearStream(ask: Ask, told: () => void): () => void {
  let off = false;
  let line = new AbortController();
  const hear = async () => {
    while (!off) {
      line = new AbortController();
      const { signal } = line;
      const hangUp = () => line.abort();
      let watch = setTimeout(hangUp, silence);
      try {
        const got = await ask(signal);
        if (got.response.status === 404) return told();
        const reader = (got.data as ReadableStream<Uint8Array> | null | undefined)?.getReader();
        for (let read = await reader?.read(); read && !read.done; read = await reader?.read()) {
          clearTimeout(watch);
          watch = setTimeout(hangUp, silence);
          if (new TextDecoder().decode(read.value).includes("data:")) told();
        }
      } catch {
        // No connection, or none any more: it is tried again.
      } finally {
        clearTimeout(watch);
      }
      if (!off) await new Promise((wake) => setTimeout(wake, again));
    }
  };
  const awake = () => {
    if (document.visibilityState === "visible") line.abort();
  };
  document.addEventListener("visibilitychange", awake);
  document.addEventListener("resume", awake);
  window.addEventListener("online", awake);
  void hear();
  return () => {
    off = true;
    line.abort();
    document.removeEventListener("visibilitychange", awake);
    document.removeEventListener("resume", awake);
    window.removeEventListener("online", awake);
  };
}
