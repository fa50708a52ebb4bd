import { useState } from 'react';
import { Moon, Sun } from './icons';

const YEAR_SECONDS = 31_536_000;

/** Changes between the light of day and a dim evening; the server reads the cookie, so pages never flash. */
export function ThemeSwitch() {
  const [evening, setEvening] = useState(() => document.documentElement.dataset.theme === 'evening');
  const change = () => {
    const theme = evening ? 'day' : 'evening';
    document.documentElement.dataset.theme = theme;
    // biome-ignore lint/suspicious/noDocumentCookie: the Cookie Store API is not in every browser yet
    document.cookie = `oculent-theme=${theme}; path=/; max-age=${YEAR_SECONDS}; samesite=strict`;
    setEvening(!evening);
    window.dispatchEvent(new Event('oculent-theme'));
  };
  return (
    <button type="button" className="button" onClick={change}>
      {evening ? <Sun size={20} aria-hidden /> : <Moon size={20} aria-hidden />}
      <span className="max-md:sr-only">{evening ? 'Day light' : 'Evening light'}</span>
    </button>
  );
}
