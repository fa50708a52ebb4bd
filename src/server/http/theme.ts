/** The light that a browser has chosen, as the pages are styled by it. @param cookies its header, null where it sent none */
export function themeIn(cookies: string | null): 'day' | 'evening' {
  return /(?:^|;\s*)oculent-theme=evening(?:;|$)/.test(cookies ?? '') ? 'evening' : 'day';
}
