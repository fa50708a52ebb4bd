import { contentsInWords } from '../../core/backups/contents';
import { momentInWords } from '../../core/words/moments';
import { counted } from '../../core/words/numbers';
import type { BackupView, RestoreReport } from '../backups/contract';
import { escaped, plainPage } from '../http/plainPage';

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

/** The page that opens in place of the shelf when the data cannot be used. */
export function rescuePage(
  { sentence, directory, backups, good, failed }: RescueState,
  now: Date,
  cookies: string | null,
): string {
  const other = backups.filter(({ name }) => name !== good?.name);
  return plainPage(
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
    cookies,
  );
}

/** What came back, once it did. */
export function restoredPage(report: RestoreReport, cookies: string | null): string {
  return plainPage(
    'The shelf is back',
    `<h1>The shelf is back</h1>
    <div class="slip"><p>${counted(report.back.length, 'canvas', 'canvases')} came back: ${escaped(report.back.join(', '))}.</p>
    <p>${report.faults.length === 0 ? 'All records were checked and are whole.' : escaped(report.faults.join(' '))}</p></div>
    <p><a class="button" href="/">To the shelf</a></p>`,
    cookies,
  );
}
