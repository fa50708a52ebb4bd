import { useRef, useState } from 'react';
import { type Shape, sizeInWords } from '../../core/canvas/canvas';
import { counted, many } from '../../core/words/numbers';
import { readText } from '../../core/words/text';
import type { StitchView } from '../../server/stitches/contract';
import { FilePicker } from '../../ui/FilePicker';
import { Labelled } from '../../ui/Labelled';
import { Notice } from '../../ui/Notice';
import { TermWord } from '../../ui/TermWord';
import { ToggleButton } from '../../ui/ToggleButton';
import { typedNumber } from '../../ui/typedNumber';
import { sendJson } from '../writing/api';
import { useWrite } from '../writing/useWrite';
import { ThreadTable } from './ThreadTable';

type FileKind = 'grid' | 'threads' | 'range';
const GRID_WORDS = ['symbols', 'codes'] as const;

/** What the user has chosen to be read, and how. */
interface Wish {
  files: Partial<Record<FileKind, { name: string; text: string }>>;
  /** Thread code → drill code. */
  chosen: Record<string, string>;
  words: (typeof GRID_WORDS)[number] | null;
}
const NO_WISH: Wish = { files: {}, chosen: {}, words: null };

const bodyOf = ({ files, chosen, words }: Wish) => ({
  grid: files.grid?.text ?? '',
  threads: files.threads?.text ?? '',
  range: files.range?.text ?? null,
  chosen: Object.entries(chosen).map(([thread, drill]) => ({ thread, drill })),
  words,
});

const FILES: [FileKind, string, string][] = [
  [
    'grid',
    'Grid of the chart (CSV)',
    'One stitch in each cell, as symbol or thread code; empty where there is no stitch.',
  ],
  ['threads', 'Thread list (CSV)', 'With a header row: symbol, code, name, hex.'],
  [
    'range',
    'Drills you can get (CSV), if you like',
    'With a header row: code, name, hex. Without it every thread code is taken as a drill code.',
  ],
];

/** Turns a stitch chart into a canvas of drills: choose files, look at what merges, overrule, save. */
export function StitchesPage() {
  const [title, setTitle] = useState('');
  const [shape, setShape] = useState<Shape>('square');
  const [pitch, setPitch] = useState('2.5');
  const [wish, setWish] = useState(NO_WISH);
  /** What a wish came to: what is saved is what is shown. */
  const [read, setRead] = useState<{ of: Wish; view: StitchView } | null>(null);
  const newest = useRef(NO_WISH);
  const { busy, fault, act, write } = useWrite();
  const [id] = useState(() => crypto.randomUUID());
  const pitchMm = typedNumber(pitch, 'mm') ?? Number.NaN;
  const view = read?.view ?? null;
  const { files } = wish;

  const look = async (next: Wish) => {
    newest.current = next;
    setWish(next);
    if (!next.files.grid || !next.files.threads) return;
    const view = await sendJson<StitchView>('POST', '/api/stitch-readings', bodyOf(next));
    // An answer that was overtaken says nothing of what is chosen now.
    if (newest.current === next) setRead({ of: next, view });
  };
  const choose = (kind: FileKind, file: File) =>
    act(async () => {
      setRead(null);
      const text = readText(new Uint8Array(await file.arrayBuffer()));
      // Another grid or list may have other words.
      await look({ ...NO_WISH, files: { ...newest.current.files, [kind]: { name: file.name, text } } });
    });
  const overrule = (thread: string, drill: string) =>
    act(() => look({ ...newest.current, chosen: { ...newest.current.chosen, [thread]: drill } }));
  const save = () =>
    write('POST', '/api/stitch-canvases', { ...bodyOf(wish), id, title, shape, pitchMm }, () =>
      window.location.assign(`/canvas/${id}/chart`),
    );

  return (
    <div className="grid items-start gap-6 lg:grid-cols-[23rem_1fr]">
      <section className="flex flex-col gap-4" aria-label="The files">
        <p>
          A stitch becomes a <TermWord term="drill">drill</TermWord>. Stitches ÷ 4 are centimetres at a{' '}
          <TermWord term="pitch">pitch</TermWord> of 2.5 mm.
        </p>
        {FILES.map(([kind, words, about]) => (
          <div key={kind}>
            <FilePicker
              words={words}
              accept=".csv,.tsv,.txt,text/csv"
              className="w-full"
              disabled={busy}
              onChoose={(file) => void choose(kind, file)}
            />
            <p className="mt-1 text-[0.95rem] text-faded">
              {files[kind] ? <strong className="text-ink">{files[kind].name}</strong> : about}
            </p>
          </div>
        ))}
        <Labelled words="Title">
          <input
            className="field"
            value={title}
            maxLength={80}
            onChange={(event) => setTitle(event.target.value)}
          />
        </Labelled>
        <div className="grid grid-cols-2 gap-3">
          <Labelled words="Drills">
            <select
              className="field"
              value={shape}
              onChange={(event) => setShape(event.target.value as Shape)}
            >
              <option value="square">Square</option>
              <option value="round">Round</option>
            </select>
          </Labelled>
          <Labelled words="Pitch, mm">
            <input
              className="field number"
              inputMode="decimal"
              value={pitch}
              onChange={(event) => setPitch(event.target.value)}
            />
          </Labelled>
        </div>
        <p className="text-faded">A chart you bought is for your own use; please do not publish it.</p>
      </section>
      <section aria-live="polite" className="flex min-w-0 flex-col gap-4">
        {fault && <Notice kind="fault">{fault}</Notice>}
        {busy && !view && <p>Reading…</p>}
        {!view && !busy && !fault && (
          <p className="slip max-w-xl">
            Choose the grid and the thread list. What they become is shown here before anything is saved.
          </p>
        )}
        {view && (
          <>
            <div className="flex flex-wrap items-end justify-between gap-4">
              <div>
                <p className="big-number">
                  {view.drills === null ? 'Not every thread has a drill yet' : counted(view.drills, 'drill')}
                </p>
                <p className="number">
                  {many(view.width)} × {many(view.height)} stitches:{' '}
                  {sizeInWords({ width: view.width, height: view.height, pitchMm: pitchMm || 2.5 })}
                  {view.colours !== null && `, ${counted(view.colours, 'colour')}`}
                </p>
              </div>
              <button
                type="button"
                className="button button-main"
                disabled={busy || read?.of !== wish || view.drills === null}
                onClick={() => void save()}
              >
                Put it on the shelf
              </button>
            </div>
            {(view.words.others.length > 0 || wish.words !== null) && (
              <fieldset className="flex flex-wrap items-center gap-2">
                <legend className="sr-only">What the words in the grid are</legend>
                <span>Its words are</span>
                {GRID_WORDS.map((words) => (
                  <ToggleButton
                    key={words}
                    on={view.words.kind === words}
                    onChange={() => void act(() => look({ ...newest.current, words }))}
                  >
                    {words}
                  </ToggleButton>
                ))}
              </fieldset>
            )}
            <Notice kind="hint">
              {view.notices.map((notice) => (
                <p key={notice}>{notice}</p>
              ))}
            </Notice>
            {view.merges.length > 0 && (
              <Notice kind="hint">
                <strong>{counted(view.merges.length, 'drill')} for several threads</strong>
                <ul>
                  {view.merges.map(({ drill, threads, drills }) => (
                    <li key={drill} className="number">
                      {threads
                        .map(({ code, inWords: near }) => (near === '' ? code : `${code} (${near})`))
                        .join(' and ')}{' '}
                      become {drill}: {counted(drills, 'drill')} together
                    </li>
                  ))}
                </ul>
              </Notice>
            )}
            {view.unmatched.length > 0 && (
              <Notice kind="fault">
                <strong>Not in the thread list, left without a drill</strong>
                <ul>
                  {view.unmatched.slice(0, 20).map(({ value, cells }) => (
                    <li key={value} className="number">
                      {value}: {counted(cells, 'square')}
                    </li>
                  ))}
                </ul>
                {view.unmatched.length > 20 && <p>and {view.unmatched.length - 20} more</p>}
              </Notice>
            )}
            <ThreadTable threads={view.threads} onChoose={(thread, drill) => void overrule(thread, drill)} />
          </>
        )}
      </section>
    </div>
  );
}
