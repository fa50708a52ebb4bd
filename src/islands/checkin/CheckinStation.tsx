import { useMemo, useRef, useState } from 'react';
import type { LegendLine } from '../../core/canvas/legend';
import { ofLine } from '../../core/canvas/legend';
import type { BagMeasure } from '../../core/checkin/bag';
import { bagInWords } from '../../core/checkin/bagInWords';
import type { ListedBag } from '../../core/checkin/bagLedger';
import { spokenResult } from '../../core/checkin/supply';
import type { ErringBag } from '../../core/checkin/weighing';
import { type PotPlaces, potsInCodeOrder } from '../../core/codes/places';
import { counted } from '../../core/words/numbers';
import type { CheckinView } from '../../server/checkin/contract';
import type { ShelfEntry } from '../../server/shelf/contract';
import { keptHere } from '../../ui/kept';
import { Notice } from '../../ui/Notice';
import { say } from '../../ui/speech';
import { ToggleButton } from '../../ui/ToggleButton';
import { withLegend } from '../../ui/withLegend';
import { UndoButtons } from '../writing/UndoButtons';
import { useAnswer } from '../writing/useAnswer';
import { useWrite } from '../writing/useWrite';
import { BagField } from './BagField';
import { BagList } from './BagList';
import { BagWall } from './BagWall';
import { CheckinNav } from './CheckinNav';
import { LastBag, type LastCounted } from './LastBag';
import { SheetFindings } from './SheetFindings';
import { Strays } from './Strays';
import { SupplyTable } from './SupplyTable';
import { TrashSlip } from './TrashSlip';
import { TrayDialog } from './TrayDialog';
import { useCheckin } from './useCheckin';
import { WeighDialog } from './weigh/WeighDialog';

const SPEECH_KEY = 'oculent-speech';

interface CheckinProps {
  entry: ShelfEntry;
  legend: LegendLine[];
  places: PotPlaces;
  first: CheckinView;
}

/** The heap of bags against the sheet: type the code, Enter, next bag. */
export const CheckinStation = withLegend(CheckinStationWithList);

function CheckinStationWithList(props: Omit<CheckinProps, 'first'>) {
  const { entry, legend } = props;
  const { answer: first, fault } = useAnswer<CheckinView>(`/api/canvases/${entry.canvas.id}/bags`);
  if (fault) return <Notice kind="fault">{fault}</Notice>;
  if (!first) return <p aria-live="polite">Loading…</p>;
  if (legend.length > 0) return <Heap {...props} first={first} />;
  return (
    <div className="slip max-w-xl">
      <p className="mb-3 text-lg">{first.sentence}</p>
      <a className="button button-main" href={`/canvas/${entry.canvas.id}/checkin/sheet`}>
        Read the colour list
      </a>
    </div>
  );
}

function Heap({ entry, legend, places, first }: CheckinProps) {
  const { canvas } = entry;
  const { view, fault, enterBag, recordTrash } = useCheckin(canvas.id, first);
  const [typed, setTyped] = useState('');
  const [last, setLast] = useState<LastCounted | null>(null);
  const [speaks, setSpeaks] = useState(() => keptHere.get(SPEECH_KEY) === 'on');
  const [bagsCarry, setBagsCarry] = useState(canvas.bagsCarry);
  const { enter, write } = useWrite(canvas.id);
  const [weighing, setWeighing] = useState<{ line: LegendLine | null } | null>(null);
  const [onTray, setOnTray] = useState<{ line: LegendLine | null } | null>(null);
  const [asTable, setAsTable] = useState(false);
  const [onlyLacking, setOnlyLacking] = useState(false);
  const field = useRef<HTMLInputElement>(null);
  const pots = useMemo(() => potsInCodeOrder(legend, places), [legend, places]);
  const placeOf = (line: LegendLine | null) => pots.find((pot) => pot.line === line)?.place ?? '';

  const count = (
    line: LegendLine | null,
    label: string,
    drills: number,
    how: BagMeasure,
    error: Partial<ErringBag> = {},
    bags = 1,
  ) => {
    for (let bag = 1; bag <= bags; bag++) {
      enterBag({ line: line?.line ?? null, label, drills, how, ...error }, (next) => {
        setLast({ label, line, drills });
        if (!speaks || bag < bags) return;
        say(
          line
            ? spokenResult(line.code, ofLine(next.supply, line.line)!, placeOf(line))
            : `${label} is not in the colour list.`,
        );
      });
    }
    if (weighing === null && onTray === null) field.current?.focus();
  };
  const remove = (bag: ListedBag) => enterBag({ removes: bag.id });
  const keepInStash = (bag: ListedBag, hex: string | null) => {
    void enter<unknown>(
      '/api/stash',
      { code: bag.label.slice(0, 24), hex, shape: canvas.shape, drills: bag.drills },
      () => {},
    );
    remove(bag);
  };

  return (
    <>
      <CheckinNav canvasId={canvas.id} here="" />
      <div className="grid grow gap-x-6 gap-y-5 lg:h-[calc(100dvh-12.4rem)] lg:grid-cols-[22rem_1fr] lg:grid-rows-[minmax(0,1fr)]">
        <section className="flex flex-col gap-3 lg:-m-1.5 lg:overflow-y-auto lg:p-1.5" aria-label="This bag">
          <BagField
            canvas={canvas}
            legend={legend}
            field={field}
            typed={typed}
            onType={setTyped}
            speaks={speaks}
            onSpeaks={(on) => {
              keptHere.set(SPEECH_KEY, on ? 'on' : 'off');
              setSpeaks(on);
            }}
            bagsCarry={bagsCarry}
            onCount={({ line, label, bags, drills, how }) => count(line, label, drills, how, {}, bags)}
            onCarry={(carry) => {
              setBagsCarry(carry);
              void write<unknown>('PATCH', `/api/canvases/${canvas.id}`, { bagsCarry: carry }, () => {});
            }}
            onWeigh={(line) => setWeighing({ line })}
            onTray={(line) => setOnTray({ line })}
          />
          {fault && <Notice kind="fault">{fault}</Notice>}
          <div aria-live="polite">
            {last && (
              <LastBag
                last={last}
                supply={last.line ? ofLine(view.supply, last.line.line) : undefined}
                place={placeOf(last.line)}
                shape={canvas.shape}
                usualDrills={canvas.packetDrills}
                trash={view.trash}
                filling={view.filling}
              >
                {last.line && (
                  <BagList
                    bags={view.bags.filter(({ line }) => line === last.line?.line)}
                    legend={legend}
                    onChange={(bag, change) => enterBag({ changes: bag.id, label: bag.label, ...change })}
                    onRemove={remove}
                    onBringBack={(undoes) => enterBag({ undoes })}
                  />
                )}
              </LastBag>
            )}
          </div>
          <UndoButtons
            history={view.history}
            words={(entry) => bagInWords(entry, legend)}
            busy={false}
            onUndo={(undoes) => {
              enterBag({ undoes });
              setLast(null);
            }}
            onRedo={(redoes) => enterBag({ redoes })}
          />
          <Strays
            bags={view.bags.filter((bag) => bag.line === null && bag.removedBy === null)}
            matches={view.strayMatches}
            legend={legend}
            onAssign={(bag, line) => {
              enterBag({ assigns: bag.id, line: line.line });
              setLast({ label: bag.label, line, drills: bag.drills });
            }}
            onKeep={keepInStash}
            onRemove={remove}
          />
          <TrashSlip trash={view.trash} records={view.trashRecords} onRecord={recordTrash} />
        </section>
        <section aria-label="The heap" className="flex min-h-0 min-w-0 flex-col">
          <div className="mb-3 flex flex-wrap items-end justify-between gap-3 xl:flex-nowrap">
            <div>
              <p className="big-number">
                {view.summary.bagsToFind === 0
                  ? 'No bag missing'
                  : `${view.summary.expectedBags === 0 ? 'At least ' : ''}${counted(view.summary.bagsToFind, 'bag')} to find`}
              </p>
              <p className="max-w-[46rem]" data-testid="sentence">
                {view.sentence}
              </p>
            </div>
            <div className="flex flex-wrap gap-2 sm:shrink-0">
              <ToggleButton on={onlyLacking} onChange={setOnlyLacking}>
                Only what is missing
              </ToggleButton>
              <ToggleButton on={asTable} onChange={setAsTable}>
                As a table
              </ToggleButton>
            </div>
          </div>
          <SheetFindings findings={view.findings} open={view.bags.length === 0} />
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
                setLast({ label: line.code, line, drills: canvas.packetDrills });
                field.current?.focus();
              }}
            />
          )}
        </section>
        {onTray && (
          <TrayDialog
            canvas={canvas}
            legend={legend}
            first={onTray.line}
            onClose={() => {
              setOnTray(null);
              field.current?.focus();
            }}
            onCount={(line, drills, spread) =>
              count(line, line.code, drills, 'photographed', { spread, shared: [] })
            }
          />
        )}
        {weighing && (
          <WeighDialog
            canvas={canvas}
            legend={legend}
            supply={view.supply}
            first={weighing.line}
            onClose={() => {
              setWeighing(null);
              field.current?.focus();
            }}
            onCount={(line, { drills, spread, shared }) =>
              count(line, line.code, Math.round(drills), 'weighed', { spread, shared })
            }
          />
        )}
      </div>
    </>
  );
}
