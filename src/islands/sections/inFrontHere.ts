import type { InFront } from '../../core/sections/inFront';
import { keptInTab } from '../../ui/kept';
import { sendJson } from '../writing/api';

/** What is in front on this screen; null for what nobody has chosen. */
export interface Front {
  section: number | null;
  line: number | null;
}

const NOTHING: Front = { section: null, line: null };
/** The server is told once a choice has stood for so long. */
const TELL_MS = 500;

/** What an address names: `?section=30&colour=7`, the colour by its number in the list. */
export function frontInAddress(search: string): Front {
  const asked = new URLSearchParams(search);
  const whole = (name: string) => {
    const number = Number(asked.get(name));
    return Number.isInteger(number) && number > 0 ? number : null;
  };
  return { section: whole('section'), line: whole('colour') };
}

/**
 * Where a page begins: at what its address names, else where this tab was last, else where the canvas was left at any
 * screen. A colour alone is looked for in the section of before; another section has no colour in front yet.
 */
export function frontAtFirst(search: string, here: Front | null, kept: InFront | null): Front {
  const asked = frontInAddress(search);
  const before = here ?? kept ?? NOTHING;
  if (asked.section === null && asked.line === null) return before;
  const section = asked.section ?? before.section;
  return { section, line: asked.line ?? (section === before.section ? before.line : null) };
}

const keyOf = (canvasId: string) => `oculent-in-front-${canvasId}`;

/** What this tab had in front last. */
export function frontOfTab(canvasId: string): Front | null {
  const { section, line } = (keptInTab.json(keyOf(canvasId)) ?? {}) as { section?: unknown; line?: unknown };
  const number = (value: unknown) => (typeof value === 'number' ? value : null);
  return section === undefined ? null : { section: number(section), line: number(line) };
}

/** What waits to be told, and what other screens know. */
let toTell: { canvasId: string; front: InFront; timer: ReturnType<typeof setTimeout> } | null = null;
let told: (InFront & { canvasId: string }) | null = null;

/**
 * Keeps what is in front: for this tab at once, in the address, and after a moment for every other screen.
 * @param kept what the server knew when the page was made
 */
export function keepFront(canvasId: string, front: InFront, kept: InFront | null): void {
  keptInTab.set(keyOf(canvasId), JSON.stringify(front));
  const address = new URL(location.href);
  address.searchParams.set('section', String(front.section));
  if (front.line === null) address.searchParams.delete('colour');
  else address.searchParams.set('colour', String(front.line));
  if (address.href !== location.href) history.replaceState(history.state, '', address);
  if (toTell) clearTimeout(toTell.timer);
  toTell = null;
  const known = told?.canvasId === canvasId ? told : kept;
  if (known?.section === front.section && known.line === front.line) return;
  toTell = { canvasId, front, timer: setTimeout(tellNow, TELL_MS) };
}

/** Where a screen was is no record: a telling that is lost costs nothing, so it is not queued. */
function tellNow(): void {
  if (!toTell) return;
  const { canvasId, front, timer } = toTell;
  clearTimeout(timer);
  toTell = null;
  told = { ...front, canvasId };
  sendJson('PUT', `/api/canvases/${canvasId}/in-front`, front, { keepalive: true }).catch(() => {
    told = null;
  });
}
if (typeof window !== 'undefined') window.addEventListener('pagehide', tellNow);
