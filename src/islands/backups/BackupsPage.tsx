import { useState } from 'react';
import { contentsInWords, sizeInWords } from '../../core/backups/contents';
import { momentInWords } from '../../core/words/moments';
import { counted, many } from '../../core/words/numbers';
import type { BackupsView, BackupView, CheckReport, RestoreReport } from '../../server/backups/contract';
import { FilePicker } from '../../ui/FilePicker';
import { FolderInput, ShieldCheck } from '../../ui/icons';
import { Notice } from '../../ui/Notice';
import { ScrollRegion } from '../../ui/ScrollRegion';
import { getJson, sendFile } from '../writing/api';
import { JobLine } from '../writing/JobLine';
import { useJob } from '../writing/useJob';
import { useWrite } from '../writing/useWrite';
import { AskDialog } from './AskDialog';

const WHY: Record<BackupView['why'], string> = {
  daily: 'by itself',
  'before an update': 'before an update',
  'by hand': 'by hand',
};

/** Every backup with what is in it; making, keeping elsewhere, restoring and checking. */
export function BackupsPage({ first }: { first: BackupsView }) {
  const [view, setView] = useState(first);
  const [restored, setRestored] = useState<RestoreReport | null>(null);
  const [checked, setChecked] = useState<CheckReport | null>(null);
  const [asked, setAsked] = useState<{ backup: BackupView; what: 'restore' | 'delete' } | null>(null);
  const [doing, setDoing] = useState('Making a backup');
  const jobs = useJob();
  const { busy, fault, write } = useWrite();
  const now = new Date();
  const newest = view.backups.find((backup) => backup.fault === null);

  const run = (words: string, work: Parameters<typeof jobs.run>[0]) => {
    setDoing(words);
    setRestored(null);
    setChecked(null);
    void jobs.run(work);
  };
  const make = () =>
    run('Making a backup', async (job, signal) => {
      setView(
        await sendFile<BackupsView>('POST', `/api/backups?job=${job}`, null, 'application/json', signal),
      );
    });
  const restore = (url: string, file: File | null) =>
    run('Restoring', async (job, signal) => {
      setRestored(
        await sendFile<RestoreReport>('POST', `${url}?job=${job}`, file, 'application/zip', signal),
      );
    });
  const check = () =>
    run('Checking the records', async (job) => {
      setChecked(await getJson<CheckReport>(`/api/records?job=${job}`));
    });

  return (
    <div className="flex max-w-5xl flex-col gap-5">
      <section className="slip" aria-label="The newest backup">
        {newest ? (
          <>
            <p className="text-2xl font-semibold">
              Last backup {momentInWords(new Date(newest.madeAt), now)}
            </p>
            <p>
              {contentsInWords(newest.contents)} It was opened and compared with the shelf, row by row, when
              it was made.
            </p>
          </>
        ) : (
          <p className="text-2xl font-semibold">No backup yet</p>
        )}
        <p className="mt-1 text-faded">
          {view.kept === null
            ? 'None are made by themselves here (OCULENT_BACKUPS is off).'
            : `One is made every day, while you work. The last of ${view.kept} are kept, and those made by hand.`}
        </p>
        {view.failed !== null && <Notice kind="fault">The last daily backup failed: {view.failed}</Notice>}
        <div className="mt-4 flex flex-wrap gap-3">
          <button type="button" className="button button-main" disabled={jobs.busy} onClick={make}>
            Back up now
          </button>
          {newest && (
            <a className="button" href={`/api/backups/${newest.name}`}>
              Download the newest
            </a>
          )}
          <FilePicker
            words={
              <>
                <FolderInput size={20} aria-hidden /> Restore from a file
              </>
            }
            accept=".zip,application/zip"
            disabled={jobs.busy}
            onChoose={(file) => restore('/api/everything', file)}
          />
          <button type="button" className="button" disabled={jobs.busy} onClick={check}>
            <ShieldCheck size={20} aria-hidden /> Check the records
          </button>
        </div>
        <div className="mt-3 flex flex-col gap-2">
          <JobLine jobs={jobs} words={doing} />
          {fault && <Notice kind="fault">{fault}</Notice>}
          {checked && <Checked report={checked} />}
          {restored && <Restored report={restored} />}
        </div>
      </section>
      <Notice kind="hint">
        Backups lie beside the data, in <code className="break-all">{view.directory}</code>. A disk that
        breaks takes both: download one now and then, and keep it elsewhere.
      </Notice>
      {view.backups.length > 0 && (
        <ScrollRegion label="All backups, the newest first" className="max-h-[28rem] px-1">
          <table className="table-plain w-full">
            <thead>
              <tr>
                <th scope="col">Made</th>
                <th scope="col">What is in it</th>
                <th scope="col" className="text-right">
                  Size
                </th>
                <th scope="col">
                  <span className="sr-only">Actions</span>
                </th>
              </tr>
            </thead>
            <tbody>
              {view.backups.map((backup) => {
                const made = momentInWords(new Date(backup.madeAt), now);
                return (
                  <tr key={backup.name}>
                    <th scope="row" className="text-left font-semibold">
                      {made}
                      <br />
                      <span className="font-normal text-faded">{WHY[backup.why]}</span>
                    </th>
                    <td>
                      {backup.fault ?? contentsInWords(backup.contents)}
                      {backup.contents && (
                        <span className="block text-faded">{titlesInWords(backup.contents.canvases)}</span>
                      )}
                    </td>
                    <td className="number whitespace-nowrap text-right">{sizeInWords(backup.bytes)}</td>
                    <td>
                      <div className="flex justify-end gap-2">
                        <a className="button" href={`/api/backups/${backup.name}`}>
                          Download<span className="sr-only"> the backup made {made}</span>
                        </a>
                        <button
                          type="button"
                          className="button"
                          disabled={jobs.busy || backup.fault !== null}
                          onClick={() => setAsked({ backup, what: 'restore' })}
                        >
                          Restore…<span className="sr-only"> the backup made {made}</span>
                        </button>
                        <button
                          type="button"
                          className="button !border-alarm !text-alarm"
                          disabled={busy}
                          onClick={() => setAsked({ backup, what: 'delete' })}
                        >
                          Delete<span className="sr-only"> the backup made {made}</span>
                        </button>
                      </div>
                    </td>
                  </tr>
                );
              })}
            </tbody>
          </table>
        </ScrollRegion>
      )}
      {asked && (
        <AskDialog
          backup={asked.backup}
          what={asked.what}
          made={momentInWords(new Date(asked.backup.madeAt), now)}
          onClose={() => setAsked(null)}
          onYes={() => {
            setAsked(null);
            const url = `/api/backups/${asked.backup.name}`;
            if (asked.what === 'restore') restore(`${url}/restore`, null);
            else void write<BackupsView>('DELETE', url, undefined, setView);
          }}
        />
      )}
    </div>
  );
}

const TITLES_SHOWN = 4;

function titlesInWords(canvases: readonly { title: string; deleted: boolean }[]): string {
  const titles = canvases.filter(({ deleted }) => !deleted).map(({ title }) => title);
  const more = titles.length - TITLES_SHOWN;
  return titles.slice(0, TITLES_SHOWN).join(', ') + (more > 0 ? ` and ${many(more)} more` : '');
}

function Checked({ report }: { report: CheckReport }) {
  if (report.faults.length > 0) return <Faults faults={report.faults} />;
  return (
    <p role="status" className="font-semibold">
      All is well: {counted(report.canvases, 'canvas', 'canvases')} with {counted(report.marks, 'mark')} add
      up, {counted(report.rows, 'row')} can be read, and nothing refers to what is not there.
    </p>
  );
}

function Restored({ report }: { report: RestoreReport }) {
  const { back, hereAlready, faults } = report;
  const besides = report.leftovers + report.cases;
  return (
    <div role="status" className="flex flex-col gap-1">
      <p className="font-semibold">
        {back.length === 0
          ? `${besides > 0 ? 'No canvas' : 'Nothing'} came back: every canvas of this backup is on the shelf already.`
          : `${counted(back.length, 'canvas', 'canvases')} came back: ${back.join(', ')}.`}
      </p>
      {back.length > 0 && (
        <p>
          With {counted(report.bags, 'bag')}, {counted(report.marks, 'mark')} and{' '}
          {counted(report.photos, 'photo')}.
        </p>
      )}
      {besides > 0 && (
        <p>
          Besides: {counted(report.leftovers, 'leftover')} and {counted(report.cases, 'case')}.
        </p>
      )}
      {back.length > 0 && hereAlready.length > 0 && (
        <p>On the shelf already, left as they are: {hereAlready.join(', ')}.</p>
      )}
      {report.leftOut > 0 && (
        <p>{counted(report.leftOut, 'pot')} found another colour in its place; plan those at Kit-up.</p>
      )}
      {faults.length > 0 ? (
        <Faults faults={faults} />
      ) : (
        <p>All records were checked afterwards and are whole.</p>
      )}
      <p>
        <a className="button" href="/">
          To the shelf
        </a>
      </p>
    </div>
  );
}

function Faults({ faults }: { faults: readonly string[] }) {
  return (
    <Notice kind="fault">
      <strong>{counted(faults.length, 'fault')} found</strong>
      <ul className="list-disc pl-5">
        {faults.map((fault) => (
          <li key={fault}>{fault}</li>
        ))}
      </ul>
      <p>Do not delete anything. Download a backup from before, and keep the data directory as it is.</p>
    </Notice>
  );
}
