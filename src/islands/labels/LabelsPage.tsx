import { useMemo, useState } from 'react';
import type { LegendLine } from '../../core/canvas/legend';
import type { Pot, PotPlaces } from '../../core/codes/places';
import { placesInCodeOrder } from '../../core/codes/places';
import type { LabelChoice } from '../../core/labels/chosen';
import { chosenLabels, inPrintOrder, leftoverLabels } from '../../core/labels/chosen';
import {
  LABEL_FORMATS,
  type LabelFormat,
  type LabelSheet,
  sheetsFor,
  usualSheet,
} from '../../core/labels/sheet';
import { PAPERS } from '../../core/print/paper';
import { counted } from '../../core/words/numbers';
import type { LabelsView } from '../../server/labels/contract';
import type { ShelfEntry } from '../../server/shelf/contract';
import { AS_TYPED } from '../../ui/asTyped';
import { Printer } from '../../ui/icons';
import { keptHere } from '../../ui/kept';
import { Notice } from '../../ui/Notice';
import { NumberField } from '../../ui/NumberField';
import { Pager } from '../../ui/Pager';
import { withLegend } from '../../ui/withLegend';
import { KitupNav } from '../kitup/KitupNav';
import { NoSheet } from '../kitup/NoSheet';
import { inWords } from '../writing/api';
import { useWrite } from '../writing/useWrite';
import { LabelRemoval } from './LabelRemoval';
import { LabelSheetForm } from './LabelSheetForm';
import { PrinterSlip } from './PrinterSlip';
import { Unprintable } from './Unprintable';

const FORMAT_WORDS: Record<LabelFormat, string> = {
  dots: 'Dots for round lids',
  pots: 'Pot labels on a sheet',
  cards: 'Index card cut in six',
  strips: 'Strips for bags',
  list: 'List of all colours',
};
const CHOICE_WORDS: Record<LabelChoice, string> = {
  all: 'every colour',
  pots: 'colours in pots',
  bags: 'colours in bags',
  leftovers: 'leftovers in the stash',
};

const ADDRESS_KEY = 'oculent-label-address';

interface LabelsProps {
  entry: ShelfEntry;
  legend: LegendLine[];
  places: PotPlaces;
  first: LabelsView;
  /** Under which devices of the house find this machine. */
  origins: string[];
}

/** The sheet as it will come out of the printer, and what it is made to fit. */
export const LabelsPage = withLegend(LabelsPageWithList);

function LabelsPageWithList(props: LabelsProps) {
  return (
    <>
      <KitupNav canvasId={props.entry.canvas.id} here="/labels" />
      {props.legend.length === 0 ? <NoSheet canvasId={props.entry.canvas.id} /> : <Labels {...props} />}
    </>
  );
}

function Labels({ entry, legend, places, first, origins }: LabelsProps) {
  const { canvas } = entry;
  const [which, setWhich] = useState(() => firstChoice(first));
  const [format, setFormat] = useState<LabelFormat>(which === 'leftovers' ? 'strips' : 'dots');
  const [sheets, setSheets] = useState(first.sheets);
  const pots = useMemo(
    () =>
      which === 'leftovers'
        ? leftoverLabels(legend, first.leftovers)
        : inPrintOrder(placesInCodeOrder(legend, places), which),
    [legend, places, which, first],
  );
  const [start, setStart] = useState(1);
  const [page, setPage] = useState(1);
  const [colours, setColours] = useState('');
  const [address, setAddress] = useState(() => firstAddress(origins));
  const [version, setVersion] = useState(0);
  const { busy, fault, write } = useWrite();
  const [said, setSaid] = useState('');
  const sheet = sheets[format];
  const perPage = sheet.columns * sheet.rows;
  const chosen = useMemo(() => chosenOf(colours, pots), [colours, pots]);
  const labels = chosen.labels?.length ?? first.counts[which];
  const pages = sheetsFor(sheet, labels, Math.min(start, perPage));
  const shownPage = Math.min(page, pages);
  const query = new URLSearchParams({
    format,
    which,
    start: String(Math.min(start, perPage)),
    ...(chosen.labels ? { colours } : {}),
    address,
  }).toString();
  const base = `/api/canvases/${canvas.id}`;
  const kept = (next: LabelSheet, words: string) => {
    setSheets((before) => ({ ...before, [format]: next }));
    setVersion((before) => before + 1);
    setSaid(words);
  };
  /** One change at a time, so that none is made to a sheet that another is about to replace. */
  const keep = (next: LabelSheet) => {
    if (busy) return;
    setSaid('');
    void write<LabelSheet>('PUT', `/api/label-sheets/${format}`, next, (sheetNow) =>
      kept(sheetNow, 'Saved. The picture shows it as it will be printed.'),
    );
  };
  const usual = () => {
    if (busy) return;
    setSaid('');
    void write('DELETE', `/api/label-sheets/${format}`, undefined, () =>
      kept(usualSheet(format), 'Back to the usual sheet.'),
    );
  };
  const paper = PAPERS[sheet.paper];

  return (
    <div className="grid items-start gap-6 lg:grid-cols-[23rem_1fr]">
      <section className="flex flex-col gap-3" aria-label="What to print">
        <div>
          <p className="big-number">{counted(labels, 'label')}</p>
          <p>
            on {counted(pages, 'sheet')} of {paper.name}, each {sheet.labelWidthMm.toFixed(1)} ×{' '}
            {sheet.labelHeightMm.toFixed(1)} mm.
          </p>
        </div>
        <div className="flex flex-wrap gap-2">
          <a className="button button-main grow" href={`${base}/labels.pdf?${query}`}>
            <Printer size={20} aria-hidden /> Print (PDF)
          </a>
          <a
            className="button"
            href={`${base}/labels.svg?${query}&page=${shownPage}`}
            download={`labels-${format}-${shownPage}.svg`}
          >
            Download this sheet (SVG)
          </a>
        </div>
        <p className="text-faded">Print at 100 %, not “fit to page”.</p>
        <Unprintable canvasId={canvas.id} />
        {fault && <Notice kind="fault">{fault}</Notice>}
        <p role="status" className="empty:hidden">
          {said}
        </p>
        <label className="block">
          <span className="mb-1 block font-semibold">What to print on</span>
          <select
            className="field"
            value={format}
            onChange={(event) => {
              setFormat(event.target.value as LabelFormat);
              setPage(1);
              setStart(1);
            }}
          >
            {LABEL_FORMATS.map((each) => (
              <option key={each} value={each}>
                {FORMAT_WORDS[each]}
              </option>
            ))}
          </select>
        </label>
        <label className="block">
          <span className="mb-1 block font-semibold">For</span>
          <select
            className="field"
            value={which}
            onChange={(event) => setWhich(event.target.value as LabelChoice)}
          >
            {Object.entries(CHOICE_WORDS).map(([key, words]) => (
              <option key={key} value={key} disabled={first.counts[key as LabelChoice] === 0}>
                {words} ({first.counts[key as LabelChoice]})
              </option>
            ))}
          </select>
        </label>
        <label className="block">
          <span className="mb-1 block font-semibold">Only some of them, if you like</span>
          <input
            className={`field ${chosen.fault ? 'field-fault' : ''}`}
            value={colours}
            placeholder="412, pot 3 - pot 9"
            aria-invalid={chosen.fault !== null}
            onChange={(event) => {
              setColours(event.target.value);
              setPage(1);
            }}
          />
          {chosen.fault && (
            <span role="alert" className="block text-[0.95rem] text-alarm">
              {chosen.fault}
            </span>
          )}
        </label>
        {sheet.qr && which !== 'leftovers' && (
          <AddressField address={address} origins={origins} onChange={setAddress} />
        )}
        <NumberField
          words="First free place on a part-used sheet"
          value={start}
          least={1}
          most={perPage}
          whole
          onChange={setStart}
        />
        <LabelSheetForm key={`${format} ${version}`} sheet={sheet} onKeep={keep} onUsual={usual} />
        <PrinterSlip sheet={sheet} onKeep={keep} />
        <LabelRemoval />
      </section>
      <section className="flex min-w-0 flex-col gap-3" aria-label="The sheet">
        <Pager what="Sheet" number={shownPage} count={pages} onChange={setPage}>
          <h2>
            Sheet {shownPage} of {pages}
          </h2>
        </Pager>
        <img
          src={`${base}/labels.svg?${query}&page=${shownPage}&v=${version}`}
          alt={`Sheet ${shownPage} as it will be printed`}
          className="w-full max-w-[54rem] border border-edge bg-white"
          style={{ aspectRatio: paper.widthMm / paper.heightMm }}
        />
      </section>
    </div>
  );
}

/** Who comes from the end of a canvas wants labels for its leftovers. */
function firstChoice({ counts }: LabelsView): LabelChoice {
  const asked = new URLSearchParams(window.location.search).get('which');
  return asked === 'leftovers' && counts.leftovers > 0 ? asked : 'all';
}

/** The labels that the field names; null for all. */
function chosenOf(wish: string, pots: Pot[]): { labels: Pot[] | null; fault: string | null } {
  if (wish.trim() === '') return { labels: null, fault: null };
  try {
    return { labels: chosenLabels(wish, pots), fault: null };
  } catch (error) {
    return { labels: null, fault: inWords(error) };
  }
}

function isOfThisMachine(address: string): boolean {
  return /^https?:\/\/(localhost|127\.0\.0\.1|\[::1\])(:|$)/i.test(address);
}

/** What was chosen last, unless a phone could not open it though it could open another one. */
function firstAddress(origins: readonly string[]): string {
  const kept = keptHere.get(ADDRESS_KEY);
  const [reachable] = origins;
  if (kept !== null && !(reachable && isOfThisMachine(kept))) return kept;
  return reachable ?? window.location.origin;
}

/** Where the QR codes lead: a phone reaches only an address that is not this computer's own. */
function AddressField({
  address,
  origins,
  onChange,
}: {
  address: string;
  origins: readonly string[];
  onChange: (address: string) => void;
}) {
  return (
    <label className="block">
      <span className="mb-1 block font-semibold">The QR codes open</span>
      <input
        className="field number"
        value={address}
        list="label-origins"
        {...AS_TYPED}
        onChange={(event) => {
          const next = event.target.value.trim();
          keptHere.set(ADDRESS_KEY, next);
          onChange(next);
        }}
      />
      <datalist id="label-origins">
        {origins.map((origin) => (
          <option key={origin} value={origin} />
        ))}
      </datalist>
      <span className="block text-[0.95rem] text-faded">
        {isOfThisMachine(address)
          ? 'This address works on this computer only. Switch the home network on under Other devices, so that a phone opens it.'
          : 'Try one code with the phone before you print them all.'}
      </span>
    </label>
  );
}
