import { useCallback, useEffect, useRef, useState } from 'react';
import { VOICE_RATES, type VoicePace } from '../../core/bench/comfort';
import { hush, say } from '../../ui/speech';

/** While silence plays, the keys of a headset come to this page. */
const SILENCE = '/silence.wav';

/**
 * Says what is in hand whenever it changes, and again when asked; keeps still while it is paused.
 * @param words what is in hand; null for nothing
 * @param onNext what the forward key of a headset does
 */
export function useVoice(
  on: boolean,
  words: string | null,
  pace: VoicePace,
  onNext: () => void,
): { paused: boolean; toggle: () => void; again: () => void } {
  const [paused, setPaused] = useState(false);
  const now = useRef({ words, pace, onNext });
  now.current = { words, pace, onNext };
  const again = useCallback(() => {
    if (now.current.words !== null) say(now.current.words, VOICE_RATES[now.current.pace]);
  }, []);
  const toggle = useCallback(() => setPaused((before) => !before), []);

  // biome-ignore lint/correctness/useExhaustiveDependencies: it is said when the words change, or the way they are said
  useEffect(() => {
    if (on && !paused) again();
    else hush();
  }, [on, paused, words, pace, again]);
  useEffect(() => () => hush(), []);

  useEffect(() => {
    if (!on || !('mediaSession' in navigator)) return;
    const audio = new Audio(SILENCE);
    audio.loop = true;
    audio.play().catch(() => {
      // Without sound the headset's keys stay with whatever plays; the other keys do the same.
    });
    const { mediaSession } = navigator;
    const keys: [MediaSessionAction, () => void][] = [
      ['play', () => setPaused(false)],
      ['pause', () => setPaused(true)],
      ['nexttrack', () => now.current.onNext()],
      ['previoustrack', again],
    ];
    for (const [key, act] of keys) mediaSession.setActionHandler(key, act);
    return () => {
      for (const [key] of keys) mediaSession.setActionHandler(key, null);
      audio.pause();
    };
  }, [on, again]);
  return { paused, toggle, again };
}
