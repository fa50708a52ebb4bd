import { Redo2, Undo2 } from 'lucide-react';
import { useCallback, useMemo, useRef, useState } from 'react';
import type { LegendLine } from '../../core/canvas/legend';
import { findLine, readTypedBag } from '../../core/checkin/findLine';
import { reasonInWords, verdictInWords } from '../../core/checkin/supply';
import { potsInCodeOrder } from '../../core/kitup/pots';
import type { ShelfEntry } from '../../server/contract/canvases';
import type { CheckinView } from '../../server/contract/checkin';
import { inWords, sendJson } from '../../ui/api';
import { Chip } from '../../ui/Chip';
import { Notice } from '../../ui/Notice';
import { counted, many } from '../../ui/numbers';
import { ToggleButton } from '../../ui/ToggleButton';
import { useUndoKeys } from '../../ui/undoKeys';
import { BagWall } from './BagWall';
import { SupplyTable } from './SupplyTable';

/** The bag that was counted last: its line, or null for one that belongs to none. */
interface LastBag {
  label: string;
  drills: number;
  line: LegendLine | null;
}

/** The heap of bags against the sheet: type the code, Enter, next bag. */
export function CheckinStation({
  entry,
  legend,
  first,
}: {
  entry: ShelfEntry;
  legend: LegendLine[];
  first: CheckinView;
}) {
  const { canvas } = entry;
  const [view, setView] = useState(first);
  const [typed, setTyped] = useState('');
  const [last, setLast] = useState<LastBag | null>(null);
  const [choice, setChoice] = useState<LegendLine[] | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const [asTable, setAsTable] = useState(false);
  const [onlyLacking, setOnlyLacking] = useState(false);
  const field = useRef<HTMLInputElement>(null);
  const pots = useMemo(() => potsInCodeOrder(legend), [legend]);
  const supplyOfLast = last?.line ? view.supply[last.line.line - 1] : undefined;

  const post = useCallback(
    async (body: object) => {
      setFault(null);
      try {
        setView(
          await sendJson<CheckinView>('POST', `/api/canvases/${canvas.id}/bags`, {
            id: crypto.randomUUID(),
            ...body,
          }),
        );
        return true;
      } catch (error) {
        setFault(inWords(error));
        return false;
      }
    },
    [canvas.id],
  );

  const count = async (line: LegendLine | null, label: string, drills: number | null) => {
    if (!(await post({ line: line?.line ?? null, label, drills }))) return;
    setLast({ label, line, drills: drills ?? canvas.packetDrills });
    setTyped('');
    setChoice(null);
    field.current?.focus();
  };
  const submit = () => {
    const { word, drills } = readTypedBag(typed);
    if (word === '') return;
    const found = findLine(word, legend);
    if (found.kind === 'several') return setChoice(found.lines);
    void count(
      found.kind === 'one' ? found.line : null,
      found.kind === 'one' ? found.line.code : word,
      drills,
    );
  };
  const undo = useCallback(() => {
    if (view.history.undo) void post({ undoes: view.history.undo });
    setLast(null);
  }, [post, view.history.undo]);
  const redo = useCallback(() => {
    if (view.history.redo) void post({ redoes: view.history.redo });
  }, [post, view.history.redo]);
  useUndoKeys(undo, redo);

  if (legend.length === 0) {
    return (
      <div className="slip max-w-xl">
        <p className="mb-3 text-lg">{view.sentence}</p>
        <a className="button button-main" href={`/canvas/${canvas.id}/checkin/sheet`}>
          Read the inventory sheet
        </a>
      </div>
    );
  }
  const strays = view.bags.filter((bag) => bag.line === null);
  return (
    <div className="grid grow gap-x-6 gap-y-5 lg:h-[calc(100dvh-9.6rem)] lg:grid-cols-[22rem_1fr] lg:grid-rows-[minmax(0,1fr)]">
      <section
        className="flex flex-col gap-4 lg:overflow-y-auto lg:p-1.5 lg:-m-1.5"
        aria-label="The bag in hand"
      >
        <form
          onSubmit={(event) => {
            event.preventDefault();
            submit();
          }}
        >
          <label htmlFor="bag" className="mb-1.5 block font-semibold">
            Code on the bag in hand
          </label>
          <div className="flex gap-2">
            <input
              id="bag"
              ref={field}
              // biome-ignore lint/a11y/noAutofocus: both hands hold bags; the field must be ready
              autoFocus
              className="field number !min-h-14 !text-2xl"
              value={typed}
              maxLength={40}
              autoComplete="off"
              aria-describedby="bag-help"
              onChange={(event) => {
                setTyped(event.target.value);
                setChoice(null);
              }}
            />
            <button type="submit" className="button button-main !min-h-14">
              Count
            </button>
          </div>
          <p id="bag-help" className="mt-1.5 text-[0.95rem] text-faded">
            Code, key number or symbol. An ordinary packet counts {canvas.packetDrills}; write{' '}
            <span className="number">412 x 140</span> for another number.
          </p>
        </form>
        {choice && (
          <fieldset className="flex flex-col gap-2">
            <legend className="font-semibold">This fits more than one line. Which is it?</legend>
            {choice.map((line) => (
              <button
                key={line.line}
                type="button"
                className="button !justify-start"
                onClick={() => void count(line, line.code, readTypedBag(typed).drills)}
              >
                <Chip line={line} shape={canvas.shape} /> {line.code} {line.name}, {line.finish}
              </button>
            ))}
          </fieldset>
        )}
        {fault && <Notice kind="fault">{fault}</Notice>}
        <div aria-live="polite">
          {last?.line && supplyOfLast ? (
            <div className="slip">
              <div className="mb-2 flex items-center gap-3">
                <Chip line={last.line} shape={canvas.shape} size={52} />
                <div>
                  <p className="number text-xl font-semibold">{last.line.code}</p>
                  <p className="text-faded">
                    Pot {pots.find((pot) => pot.line === last.line)?.pot}, key {last.line.keyNumber}
                  </p>
                </div>
              </div>
              <p className="big-number">{verdictInWords(supplyOfLast.verdict)}</p>
              <p>
                {many(supplyOfLast.suppliedDrills)} here of {many(supplyOfLast.neededDrills)} needed; bag{' '}
                {supplyOfLast.bags} of {supplyOfLast.expectedBags}
                {last.drills !== canvas.packetDrills && `, this one with ${many(last.drills)}`}
              </p>
              <p>{reasonInWords(supplyOfLast.verdict)}</p>
            </div>
          ) : (
            last && (
              <div className="slip">
                <p className="big-number">On no line</p>
                <p>
                  The sheet has no colour <span className="number">{last.label}</span>. The bag is kept among
                  the strays; take it back if it was mistyped.
                </p>
              </div>
            )
          )}
        </div>
        <div className="flex gap-2">
          <button type="button" className="button grow" disabled={!view.history.undo} onClick={undo}>
            <Undo2 size={20} aria-hidden /> Take back
          </button>
          <button type="button" className="button grow" disabled={!view.history.redo} onClick={redo}>
            <Redo2 size={20} aria-hidden /> Count again
          </button>
        </div>
        {strays.length > 0 && (
          <div className="slip">
            <h2>On no line of the sheet</h2>
            <ul className="number">
              {strays.map((bag) => (
                <li key={bag.id}>
                  {bag.label}, {many(bag.drills)} drills
                </li>
              ))}
            </ul>
          </div>
        )}
        <a className="self-start py-2.5 underline" href={`/canvas/${canvas.id}/checkin/sheet`}>
          The sheet itself
        </a>
      </section>
      <section aria-label="The heap" className="flex min-h-0 min-w-0 flex-col">
        <div className="mb-3 flex flex-wrap items-end justify-between gap-3 xl:flex-nowrap">
          <div>
            <p className="big-number">
              {view.summary.bagsToFind === 0
                ? 'No bag missing'
                : `${counted(view.summary.bagsToFind, 'bag')} to find`}
            </p>
            <p className="max-w-[46rem]" data-testid="sentence">
              {view.sentence}
            </p>
          </div>
          <div className="flex shrink-0 gap-2">
            <ToggleButton on={onlyLacking} onChange={setOnlyLacking}>
              Only what is lacking
            </ToggleButton>
            <ToggleButton on={asTable} onChange={setAsTable}>
              As a table
            </ToggleButton>
          </div>
        </div>
        {asTable ? (
          <SupplyTable pots={pots} supply={view.supply} shape={canvas.shape} onlyLacking={onlyLacking} />
        ) : (
          <BagWall
            pots={pots}
            supply={view.supply}
            lit={last?.line?.line ?? null}
            onlyLacking={onlyLacking}
            onPick={(line) => {
              setTyped(line.code);
              field.current?.focus();
            }}
          />
        )}
      </section>
    </div>
  );
}
