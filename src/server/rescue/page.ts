import { contentsInWords } from '../../core/backups/contents';
import { momentInWords } from '../../core/words/moments';
import { counted } from '../../core/words/numbers';
import type { BackupView, RestoreReport } from '../backups/contract';

/** What the page says. */
export interface RescueState {
  /** What is wrong. */
  sentence: string;
  directory: string;
  backups: readonly BackupView[];
  /** The newest that was found good just now; null where none is. */
  good: BackupView | null;
  /** Why the last try to restore failed. */
  failed: string | null;
}

function escaped(text: string): string {
  return text.replace(/[&<>"']/g, (sign) => `&#${sign.charCodeAt(0)};`);
}

/** The look of the shelf, as far as it needs none of its files. */
const STYLE = `
  body { margin: 0; font: 18px/1.5 system-ui, sans-serif; background: #e8e2d6; color: #221d18; }
  main { max-width: 44rem; margin: 3rem auto; padding: 0 1.5rem; }
  h1 { font-size: 1.7rem; line-height: 1.25; margin: 0 0 1rem; }
  h2 { font-size: 1.25rem; margin: 0 0 .5rem; }
  p { margin: .5rem 0; }
  .slip { background: #fbf8f2; box-shadow: 0 1px 3px rgb(40 28 12 / 30%); padding: 1rem 1.25rem; margin: 1.25rem 0; }
  .alarm { border-left: 6px solid #a3271b; }
  button, .button { display: inline-block; box-sizing: border-box; font: inherit; font-weight: 600; line-height: 1.4; min-height: 48px; padding: .65rem 1.25rem; border: 0; border-radius: 4px; background: #6b2045; color: #fff; cursor: pointer; text-decoration: none; }
  button:focus-visible, a:focus-visible { outline: 3px solid #a3271b; outline-offset: 2px; }
  li { margin: .35rem 0; }
  code { overflow-wrap: anywhere; }
`;

/** The page that opens in place of the shelf when the data cannot be used. */
export function rescuePage({ sentence, directory, backups, good, failed }: RescueState, now: Date): string {
  const other = backups.filter(({ name }) => name !== good?.name);
  return page(
    'The shelf does not open',
    `<h1>The shelf does not open</h1>
    <div class="slip alarm"><p>${escaped(sentence)}</p><p>The data lie in <code>${escaped(directory)}</code>.</p></div>
    ${failed === null ? '' : `<div class="slip alarm" role="alert"><p>The backup did not come back: ${escaped(failed)}</p></div>`}
    ${
      good
        ? `<div class="slip"><h2>The newest good backup</h2>
           <p>Made ${escaped(momentInWords(new Date(good.madeAt), now))}. ${escaped(contentsInWords(good.contents))} It was read just now and is whole. What was done after it is not in it.</p>
           <form method="post" action="/restore"><input type="hidden" name="backup" value="${escaped(good.name)}">
           <button type="submit">Restore this backup</button></form>
           <p>What lies there now is set aside under another name, not deleted.</p></div>`
        : `<div class="slip"><h2>There is no good backup here</h2>
           <p>Stop Oculent and look whether the disk is there and is the right one. A backup from elsewhere is taken in with <code>bin/oculent restore FILE</code>.</p></div>`
    }
    ${
      other.length === 0
        ? ''
        : `<div class="slip"><h2>Other backups</h2><ul>${other
            .map(
              (backup) =>
                `<li>${escaped(momentInWords(new Date(backup.madeAt), now))}: ${escaped(backup.fault ?? contentsInWords(backup.contents))}</li>`,
            )
            .join('')}</ul></div>`
    }`,
  );
}

/** What came back, once it did. */
export function restoredPage(report: RestoreReport): string {
  return page(
    'The shelf is back',
    `<h1>The shelf is back</h1>
    <div class="slip"><p>${counted(report.back.length, 'canvas', 'canvases')} came back: ${escaped(report.back.join(', '))}.</p>
    <p>${report.faults.length === 0 ? 'All records were checked and are whole.' : escaped(report.faults.join(' '))}</p></div>
    <p><a class="button" href="/">To the shelf</a></p>`,
  );
}

function page(title: string, inside: string): string {
  return `<!doctype html><html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width, initial-scale=1">
  <title>${title} · Oculent</title><style>${STYLE}</style></head><body><main>${inside}</main></body></html>`;
}
