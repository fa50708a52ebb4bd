/** Where the page's header says how much is laid; it is drawn by the server, and kept true by the station. */
export const PERCENT_ID = 'percent-laid';

/** Shows in the header how much of the canvas is laid. @param percent with two decimals, cut */
export function showPercent(percent: number): void {
  const place = document.getElementById(PERCENT_ID);
  if (place) place.textContent = percent.toFixed(2);
}
