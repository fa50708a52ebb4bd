import { FolderInput } from 'lucide-react';
import { useRef, useState } from 'react';
import type { ArchiveReport } from '../../server/archive/contract';
import { Notice } from '../../ui/Notice';
import { ApiProblem, inWords, sendFile } from '../writing/api';

/** Takes an archived canvas onto the shelf; one that is there already only as a copy. */
export function TakeIn() {
  const dialog = useRef<HTMLDialogElement>(null);
  const input = useRef<HTMLInputElement>(null);
  const [busy, setBusy] = useState(false);
  const [file, setFile] = useState<File | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const [known, setKnown] = useState(false);
  // One id a file: a copy that is sent again after a lost answer is the same copy.
  const [copyId, setCopyId] = useState('');
  const [report, setReport] = useState<ArchiveReport | null>(null);

  const send = async (archive: File, query: string) => {
    setBusy(true);
    setFault(null);
    setKnown(false);
    try {
      const taken = await sendFile<ArchiveReport>(
        'POST',
        `/api/archives${query}`,
        archive,
        'application/zip',
      );
      if (taken.notices.length === 0) window.location.assign(`/canvas/${taken.id}`);
      else setReport(taken);
    } catch (error) {
      setFault(inWords(error));
      setKnown(query !== '' || (error instanceof ApiProblem && error.status === 409));
    }
    setBusy(false);
  };
  const choose = (archive: File | undefined) => {
    if (!archive) return;
    setFile(archive);
    setCopyId(crypto.randomUUID());
    setReport(null);
    dialog.current?.showModal();
    void send(archive, '');
  };

  return (
    <>
      <button type="button" className="button" onClick={() => input.current?.click()}>
        <FolderInput size={20} aria-hidden /> Take in a ZIP
      </button>
      <input
        ref={input}
        type="file"
        accept=".zip,application/zip"
        className="sr-only"
        tabIndex={-1}
        aria-label="Archive of a canvas"
        onChange={(event) => {
          choose(event.target.files?.[0]);
          event.target.value = '';
        }}
      />
      <dialog
        ref={dialog}
        className="slip w-[min(34rem,92vw)] backdrop:bg-black/50"
        aria-label="Take in a canvas"
      >
        <p className="mb-3 text-lg">
          {report ? `${report.title} is on the shelf.` : busy ? `Reading ${file?.name}…` : file?.name}
        </p>
        {fault && <Notice kind="fault">{fault}</Notice>}
        {report?.notices.map((notice) => (
          <Notice key={notice} kind="hint">
            {notice}
          </Notice>
        ))}
        <div className="mt-4 flex flex-wrap gap-3">
          {report ? (
            <a className="button button-main" href={`/canvas/${report.id}`}>
              Open it
            </a>
          ) : (
            <button type="button" className="button" disabled={busy} onClick={() => dialog.current?.close()}>
              Close
            </button>
          )}
          {known && file && (
            <button
              type="button"
              className="button button-main"
              onClick={() => void send(file, `?copy=${copyId}`)}
            >
              Take it in as a copy
            </button>
          )}
        </div>
      </dialog>
    </>
  );
}
