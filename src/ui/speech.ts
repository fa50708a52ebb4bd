/**
 * Says a sentence aloud where the browser can; a new one cuts the old one short.
 * @param rate of the voice's own speed
 * @param ended is called once it is over, or cut short
 */
export function say(sentence: string, rate = 1, ended: () => void = () => {}): void {
  if (!('speechSynthesis' in window)) return ended();
  window.speechSynthesis.cancel();
  const utterance = new SpeechSynthesisUtterance(sentence);
  utterance.lang = 'en';
  utterance.rate = rate;
  utterance.onend = ended;
  utterance.onerror = ended;
  window.speechSynthesis.speak(utterance);
}

/** Ends what is being said. */
export function hush(): void {
  if ('speechSynthesis' in window) window.speechSynthesis.cancel();
}
