/** How one is told that a slot has dried. */
export type By = "nothing" | "sound" | "buzz" | "flash";

const key = "gyrophane.whenDry";

/** What this browser can do of it, in words. */
export const dryWords = {
  nothing: "silent when dry",
  sound: "a sound when dry",
  ...("vibrate" in navigator && { buzz: "a buzz when dry" }),
  flash: "a flash when dry",
} as Record<By, string>;

export const keptSignal = (): By => {
  const kept = localStorage.getItem(key) as By | null;
  return kept && kept in dryWords ? kept : "nothing";
};

export const keepSignal = (by: By) => localStorage.setItem(key, by);

/** Sounds or buzzes; a flash is drawn by the page. */
export function signal(by: By) {
  if (by === "sound") beep();
  if (by === "buzz") navigator.vibrate([180, 90, 180]);
}

function beep() {
  const audio = new AudioContext();
  const tone = audio.createOscillator();
  const loud = audio.createGain();
  tone.frequency.value = 660;
  loud.gain.setValueAtTime(0.2, audio.currentTime);
  loud.gain.exponentialRampToValueAtTime(0.001, audio.currentTime + 0.6);
  tone.connect(loud).connect(audio.destination);
  tone.start();
  tone.stop(audio.currentTime + 0.6);
  tone.onended = () => void audio.close();
}
