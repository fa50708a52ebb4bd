/** Tones of a soft chime, Hz, and when each begins, s. */
const TONES = [
  [660, 0],
  [880, 0.28],
] as const;
const LASTS_S = 1.1;
const LOUDNESS = 0.12;

/** A soft chime; nothing where the browser lets no sound out before something was touched. */
export function chime(): void {
  if (!('AudioContext' in window)) return;
  try {
    const audio = new AudioContext();
    for (const [hertz, from] of TONES) {
      const tone = audio.createOscillator();
      const volume = audio.createGain();
      const start = audio.currentTime + from;
      tone.frequency.value = hertz;
      volume.gain.setValueAtTime(0, start);
      volume.gain.linearRampToValueAtTime(LOUDNESS, start + 0.03);
      volume.gain.exponentialRampToValueAtTime(0.0005, start + LASTS_S);
      tone.connect(volume).connect(audio.destination);
      tone.start(start);
      tone.stop(start + LASTS_S);
    }
    setTimeout(() => void audio.close(), (LASTS_S + 1) * 1000);
  } catch {
    // The words on screen say the same.
  }
}
