/** Where pages are kept, and where answers. */
export const KEPT_PAGES = 'oculent-pages';
export const KEPT_ANSWERS = 'oculent-answers';

/** All that is needed to go on laying a canvas without the machine that has the data. */
export function keptFor(canvasId: string): { cache: string; url: string }[] {
  const api = `/api/canvases/${canvasId}`;
  return [
    { cache: KEPT_PAGES, url: '/' },
    ...['bench', 'sections', 'placing'].map((station) => ({
      cache: KEPT_PAGES,
      url: `/canvas/${canvasId}/${station}`,
    })),
    ...['chart', 'bitmap', 'marks', 'section-plan', 'time-model'].map((what) => ({
      cache: KEPT_ANSWERS,
      url: `${api}/${what}`,
    })),
  ];
}
