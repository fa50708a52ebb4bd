/** Says a sentence aloud where the browser can; a new one cuts the old one short. */
export function say(sentence: string): void {
  if (!('speechSynthesis' in window)) return;
  window.speechSynthesis.cancel();
  const utterance = new SpeechSynthesisUtterance(sentence);
  utterance.lang = 'en';
  window.speechSynthesis.speak(utterance);
}
