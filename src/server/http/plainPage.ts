import { themeIn } from './theme';

/** Text as it may stand in HTML. */
export function escaped(text: string): string {
  return text.replace(/[&<>"']/g, (sign) => `&#${sign.charCodeAt(0)};`);
}

/** The look of the shelf, as far as it needs none of its files. */
const STYLE = `
  :root { color-scheme: only light; --bench: #e9e2d6; --paper: #fbf8f2; --ink: #251f18; --accent: #6a2346; --on-accent: #fff8f2; --alarm: #9c2f12; }
  [data-theme="evening"] { color-scheme: dark; --bench: #191613; --paper: #25211c; --ink: #efe6d8; --accent: #e6a0bd; --on-accent: #2b0d1b; --alarm: #ff9c7d; }
  body { margin: 0; font: 18px/1.5 system-ui, sans-serif; background: var(--bench); color: var(--ink); }
  main { max-width: 44rem; margin: 3rem auto; padding: 0 1.5rem; }
  h1 { font-size: 1.7rem; line-height: 1.25; margin: 0 0 1rem; }
  h2 { font-size: 1.25rem; margin: 0 0 .5rem; }
  p { margin: .5rem 0; overflow-wrap: anywhere; }
  .slip { background: var(--paper); box-shadow: 0 1px 3px rgb(40 28 12 / 30%); padding: 1rem 1.25rem; margin: 1.25rem 0; }
  .alarm { border-left: 6px solid var(--alarm); }
  button, .button { display: inline-block; box-sizing: border-box; font: inherit; font-weight: 600; line-height: 1.4; min-height: 48px; padding: .65rem 1.25rem; border: 0; border-radius: 4px; background: var(--accent); color: var(--on-accent); cursor: pointer; text-decoration: none; }
  button:focus-visible, a:focus-visible { outline: 3px solid var(--alarm); outline-offset: 2px; }
  li { margin: .35rem 0; }
  code { overflow-wrap: anywhere; }
`;

/** A page may bring its style along, and send its forms here. */
export const PLAIN_PAGE_HEADERS = {
  'content-type': 'text/html; charset=utf-8',
  'cache-control': 'no-store',
  'content-security-policy':
    "default-src 'none'; style-src 'unsafe-inline'; form-action 'self'; base-uri 'none'; frame-ancestors 'none'",
} as const;

/**
 * A page that needs nothing but itself, for when little else can be relied on.
 * @param inside its HTML
 * @param cookies those of the browser, which hold the light that was chosen
 */
export function plainPage(title: string, inside: string, cookies: string | null): string {
  return `<!doctype html><html lang="en" data-theme="${themeIn(cookies)}"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width, initial-scale=1">
  <title>${escaped(title)} · Oculent</title><style>${STYLE}</style></head><body><main>${inside}</main></body></html>`;
}
