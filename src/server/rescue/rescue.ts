import type { IncomingMessage, RequestListener, ServerResponse } from 'node:http';
import type { DataFault } from '../../data/engine/dataFault';
import { backupPath, listBackups } from '../backups/backups';
import type { BackupView, RestoreReport } from '../backups/contract';
import { replaceWithBackup } from '../backups/restore';
import { refuseForeign } from '../http/guard';
import { PLAIN_PAGE_HEADERS } from '../http/plainPage';
import { Problem } from '../http/problem';
import { inWorker } from '../jobs/pool';
import { rescuePage, restoredPage } from './page';

/**
 * Answers in place of the shelf while its data cannot be used: says what is wrong, which backup is good, and restores
 * it at the press of a button.
 * @param restored opens the shelf once its data are back
 */
export async function rescueListener(
  directory: string,
  fault: DataFault,
  restored: () => Promise<void>,
): Promise<{ listener: RequestListener; good: BackupView | null }> {
  const backups = await listBackups({ directory });
  const good = await newestGood(directory, backups);
  let failed: string | null = null;
  // Pressed twice it is done once, and both presses are told of it: a browser shows what the second one is answered.
  let restoring: Promise<RestoreReport> | null = null;
  const restore = async (name: string) => {
    const path = await backupPath({ directory }, name);
    const report = await replaceWithBackup(directory, { path }, new Date());
    await restored();
    return report;
  };
  const answer = async (request: IncomingMessage, response: ServerResponse) => {
    const headers = new Headers();
    for (const [name, value] of Object.entries(request.headers)) headers.set(name, String(value));
    const cookies = headers.get('cookie');
    refuseForeign(new Request('http://localhost/', { method: request.method ?? 'GET', headers }));
    if (request.method === 'POST' && request.url === '/restore' && good) {
      restoring ??= restore(good.name).finally(() => {
        restoring = null;
      });
      try {
        return send(response, 200, restoredPage(await restoring, cookies));
      } catch (error) {
        failed = error instanceof Error ? error.message : String(error);
      }
    }
    if (request.url?.startsWith('/api/')) {
      response.writeHead(503, { 'content-type': 'application/problem+json' });
      const problem = { type: 'about:blank', title: 'The database', status: 503, detail: fault.message };
      return response.end(JSON.stringify(problem));
    }
    const state = { sentence: fault.message, directory, backups, good, failed };
    return send(response, 503, rescuePage(state, new Date(), cookies));
  };
  return {
    good,
    listener: (request, response) => {
      answer(request, response).catch((error: unknown) => {
        response.writeHead(error instanceof Problem ? error.status : 500, { 'content-type': 'text/plain' });
        response.end(error instanceof Problem ? error.detail : 'Something went wrong on our side.');
      });
    },
  };
}

/** Reads one after the other, the newest first, until one is whole. */
async function newestGood(directory: string, backups: readonly BackupView[]): Promise<BackupView | null> {
  for (const backup of backups) {
    if (backup.fault !== null) continue;
    const path = await backupPath({ directory }, backup.name);
    const whole = await inWorker('readyEverything', { from: { path } }).then(
      () => true,
      () => false,
    );
    if (whole) return backup;
  }
  return null;
}

function send(response: ServerResponse, status: number, html: string): void {
  response.writeHead(status, {
    ...PLAIN_PAGE_HEADERS,
    'x-content-type-options': 'nosniff',
    'x-frame-options': 'DENY',
  });
  response.end(html);
}
