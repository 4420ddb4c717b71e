import { constants, Refused, sendFile } from "../api/client";
import { meaningOf, pause } from "../api/outbox";

/** What the end of a zip file begins with, so many bytes before it. */
const endOfZip = { is: [0x50, 0x4b, 0x05, 0x06], bytes: 22 };

/** Fetches a painter's backup; `said` is told how many bytes have come. */
export async function fetchBackup(
  said: (bytes: number) => void,
  signal: AbortSignal,
): Promise<Blob> {
  const broken = new Refused(
    0,
    "The backup broke off before its end: nothing was saved. Try again.",
  );
  const got = await fetch("/api/mine/backup", { signal }).catch(() => {
    signal.throwIfAborted();
    throw new Refused(0, "The server does not answer.");
  });
  if (!got.ok || !got.body) {
    const problem = (await got.json().catch(() => ({}))) as { detail?: string };
    throw new Refused(got.status, problem.detail ?? "The server cannot do that just now.");
  }
  const reader = got.body.getReader();
  const pieces: Uint8Array<ArrayBuffer>[] = [];
  let bytes = 0;
  for (;;) {
    const { done, value } = await reader.read().catch(() => {
      signal.throwIfAborted();
      throw broken;
    });
    if (done) break;
    pieces.push(value);
    said((bytes += value.length));
  }
  const file = new Blob(pieces, { type: "application/zip" });
  const end = new Uint8Array(await file.slice(-endOfZip.bytes).arrayBuffer());
  if (!endOfZip.is.every((byte, i) => end[i] === byte)) throw broken;
  return file;
}

/** How often a piece is sent again that did not get there. */
const tries = 5;

/** Sends a backup piece by piece; `said` is told how many bytes are there. */
export async function sendBackup(
  file: Blob,
  said: (bytes: number) => void,
  signal: AbortSignal,
): Promise<void> {
  if (file.size === 0) throw new Refused(422, "The file is empty.");
  if (file.size > constants.mostArchiveBytes)
    throw new Refused(
      422,
      `The file has ${mb(file.size)}; a backup has ${mb(constants.mostArchiveBytes)} at most.`,
    );
  for (let at = 0; at < file.size;) {
    const piece = file.slice(at, at + constants.pieceBytes);
    for (let tried = 0; ; tried++) {
      signal.throwIfAborted();
      try {
        await sendFile("backup", piece, { at: String(at), bytes: String(file.size) });
        break;
      } catch (e) {
        if (!(e instanceof Refused) || meaningOf(e.status) !== "later" || tried >= tries) throw e;
        await new Promise((wake) => setTimeout(wake, pause(tried, e.retryAfter)));
      }
    }
    said((at += piece.size));
  }
}

/** Bytes in words. */
export const mb = (bytes: number) =>
  bytes < 1e6
    ? `${Math.ceil(bytes / 1000)} kB`
    : `${(bytes / 1e6).toFixed(bytes < 1e7 ? 1 : 0)} MB`;
