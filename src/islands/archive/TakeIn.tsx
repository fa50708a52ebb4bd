import { useRef, useState } from 'react';
import type { ArchiveReport } from '../../server/archive/contract';
import { Dialog } from '../../ui/Dialog';
import { FilePicker } from '../../ui/FilePicker';
import { FolderInput } from '../../ui/icons';
import { Notice } from '../../ui/Notice';
import { ApiProblem, sendFile } from '../writing/api';
import { JobLine } from '../writing/JobLine';
import { useJob } from '../writing/useJob';

/** Takes an archived canvas onto the shelf; one that is there already only as a copy. */
export function TakeIn() {
  const dialog = useRef<HTMLDialogElement>(null);
  const jobs = useJob();
  const { busy } = jobs;
  const [file, setFile] = useState<File | null>(null);
  const [known, setKnown] = useState(false);
  // One id a file: a copy that is sent again after a lost answer is the same copy.
  const [copyId, setCopyId] = useState('');
  const [report, setReport] = useState<ArchiveReport | null>(null);

  const send = (archive: File, query: string) =>
    jobs.run(async (job, signal) => {
      setKnown(false);
      const url = `/api/archives?job=${job}${query}`;
      try {
        const taken = await sendFile<ArchiveReport>('POST', url, archive, 'application/zip', signal);
        if (taken.notices.length === 0) window.location.assign(`/canvas/${taken.id}`);
        else setReport(taken);
      } catch (error) {
        setKnown(query !== '' || (error instanceof ApiProblem && error.status === 409));
        throw error;
      }
    });
  const choose = (archive: File) => {
    setFile(archive);
    setCopyId(crypto.randomUUID());
    setReport(null);
    dialog.current?.showModal();
    void send(archive, '');
  };

  return (
    <>
      <FilePicker
        words={
          <>
            <FolderInput size={20} aria-hidden /> Bring in a ZIP
          </>
        }
        accept=".zip,application/zip"
        onChoose={choose}
      />
      <Dialog title="Bring in a canvas" width={34} handle={dialog}>
        <p className="mb-3 text-lg">
          {report ? `${report.title} is on the shelf.` : busy ? `Reading ${file?.name}…` : file?.name}
        </p>
        <JobLine jobs={jobs} words="Reading it" />
        {report?.notices.map((notice) => (
          <Notice key={notice} kind="hint">
            {notice}
          </Notice>
        ))}
        <div className="mt-4 flex flex-wrap gap-3">
          {report && (
            <a className="button button-main" href={`/canvas/${report.id}`}>
              Open it
            </a>
          )}
          {known && file && (
            <button
              type="button"
              className="button button-main"
              onClick={() => void send(file, `&copy=${copyId}`)}
            >
              Bring it in as a copy
            </button>
          )}
        </div>
      </Dialog>
    </>
  );
}
