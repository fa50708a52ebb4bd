/** Says a sentence aloud where the browser can; a new one cuts the old one short. @param rate of the voice's own speed */
export function say(sentence: string, rate = 1): void {
  if (!('speechSynthesis' in window)) return;
  window.speechSynthesis.cancel();
  const utterance = new SpeechSynthesisUtterance(sentence);
  utterance.lang = 'en';
  utterance.rate = rate;
  window.speechSynthesis.speak(utterance);
}

/** Ends what is being said. */
export function hush(): void {
  if ('speechSynthesis' in window) window.speechSynthesis.cancel();
}
