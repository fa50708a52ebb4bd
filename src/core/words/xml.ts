const ESCAPES: Record<string, string> = { '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' };

/** Text made safe for XML content and quoted attributes. */
export function escapedXml(text: string): string {
  return text.replace(/[&<>"]/g, (letter) => ESCAPES[letter]!);
}
