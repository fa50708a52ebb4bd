import { useState } from 'react';
import { isFoundInLog, type LogFacts } from '../../core/finish/logPage';
import { hoursInWords } from '../../core/pace/timeInWords';
import { dayInWords } from '../../core/words/calendar';
import { counted, many } from '../../core/words/numbers';
import { DataTable } from '../../ui/DataTable';
import { Download } from '../../ui/icons';

/** The log of all canvases that were begun; those that are done come first. */
export function LogOfAll({ log }: { log: LogFacts[] }) {
  const [search, setSearch] = useState('');
  const [zone] = useState(() => Intl.DateTimeFormat().resolvedOptions().timeZone || 'UTC');
  const done = log.filter(({ finishedOn }) => finishedOn !== null);
  const found = log.filter((facts) => isFoundInLog(facts, search.trim()));
  return (
    <div className="flex flex-col gap-4">
      <p>
        <span className="big-number">{many(done.length)}</span> finished,{' '}
        {counted(
          done.reduce((sum, { drills }) => sum + drills, 0),
          'drill',
        )}
        , {hoursInWords(done.reduce((sum, { minutes }) => sum + minutes, 0))} at the bench
      </p>
      <div className="flex flex-wrap items-end gap-3">
        <label className="grow basis-64">
          <span className="block">Find by title, notes, year or shape</span>
          <input
            type="search"
            className="field"
            value={search}
            onChange={(event) => setSearch(event.target.value)}
          />
        </label>
        <a className="button" href={`/api/log.csv?zone=${encodeURIComponent(zone)}`}>
          <Download size={20} aria-hidden /> The log as CSV
        </a>
      </div>
      {log.length === 0 ? (
        <p className="slip max-w-xl">The log begins with the first drill that is marked at a bench.</p>
      ) : found.length === 0 ? (
        <p role="status">Nothing in the log has these words.</p>
      ) : (
        <div className="overflow-x-auto bg-paper">
          <DataTable
            caption="The log"
            rows={found}
            rowKey={(row) => row.id}
            columns={[
              {
                key: 'title',
                header: 'Title',
                value: (row) => row.title,
                show: (row) => (
                  <a className="underline" href={`/canvas/${row.id}/finish`} dir="auto">
                    {row.title}
                  </a>
                ),
              },
              { key: 'size', header: 'Size', value: (row) => row.size },
              { key: 'shape', header: 'Shape', value: (row) => row.shape },
              { key: 'colours', header: 'Colours', numeric: true, value: (row) => row.colours },
              {
                key: 'drills',
                header: 'Drills',
                numeric: true,
                value: (row) => row.drills,
                show: (row) => many(row.drills),
              },
              {
                key: 'begun',
                header: 'Begun',
                value: (row) => row.startedOn ?? '',
                show: (row) => (row.startedOn ? dayInWords(row.startedOn) : 'not known'),
              },
              {
                key: 'done',
                header: 'Finished',
                value: (row) => row.finishedOn ?? '',
                show: (row) => (row.finishedOn ? dayInWords(row.finishedOn) : 'in the work'),
              },
              {
                key: 'hours',
                header: 'At the bench',
                numeric: true,
                value: (row) => row.minutes,
                show: (row) => (row.minutes > 0 ? hoursInWords(row.minutes) : ''),
              },
            ]}
          />
        </div>
      )}
    </div>
  );
}
