import { useCallback, useEffect, useRef, useState } from 'react';
import { VOICE_RATES, type VoicePace } from '../../core/bench/comfort';
import { hush, say } from '../../ui/speech';

/** A second of silence as a WAV file: while it plays, the keys of a headset come to this page. */
function silence(): string {
  const samples = 8000;
  const bytes = new DataView(new ArrayBuffer(44 + samples));
  const text = (at: number, words: string) => {
    for (let i = 0; i < words.length; i++) bytes.setUint8(at + i, words.charCodeAt(i));
  };
  text(0, 'RIFF');
  bytes.setUint32(4, 36 + samples, true);
  text(8, 'WAVEfmt ');
  bytes.setUint32(16, 16, true);
  bytes.setUint16(20, 1, true);
  bytes.setUint16(22, 1, true);
  bytes.setUint32(24, samples, true);
  bytes.setUint32(28, samples, true);
  bytes.setUint16(32, 1, true);
  bytes.setUint16(34, 8, true);
  text(36, 'data');
  bytes.setUint32(40, samples, true);
  for (let i = 0; i < samples; i++) bytes.setUint8(44 + i, 128);
  return URL.createObjectURL(new Blob([bytes.buffer], { type: 'audio/wav' }));
}

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
    const url = silence();
    const audio = new Audio(url);
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
      URL.revokeObjectURL(url);
    };
  }, [on, again]);
  return { paused, toggle, again };
}
