import type { ReactNode } from 'react';
import { getFile } from './api';
import { JobLine } from './JobLine';
import { useJob } from './useJob';

/** Fetches a file that takes a while to make: shows how far it is, can be ended, then hands it to the browser. */
export function DownloadButton({ url, words, making }: { url: string; words: ReactNode; making: string }) {
  const jobs = useJob();
  const fetchFile = () =>
    void jobs.run(async (job, signal) => {
      const { blob, name } = await getFile(`${url}${url.includes('?') ? '&' : '?'}job=${job}`, signal);
      const link = document.createElement('a');
      link.href = URL.createObjectURL(blob);
      link.download = name;
      link.click();
      // The browser has taken it up by then.
      setTimeout(() => URL.revokeObjectURL(link.href), 60_000);
    });
  return (
    <div className="flex flex-col items-start gap-2">
      <button type="button" className="button" disabled={jobs.busy} onClick={fetchFile}>
        {words}
      </button>
      <JobLine jobs={jobs} words={making} />
    </div>
  );
}
