import type { Canvas } from '../../core/canvas/canvas';
import { type LegendLine, ofLine } from '../../core/canvas/legend';
import {
  type BagMeasure,
  type BagOrigin,
  type CountedBag,
  isEstimated,
  type SharedError,
} from '../../core/checkin/bag';
import { bagInWords } from '../../core/checkin/bagInWords';
import { type BagRow, laterOnSameBag, linesOfEntry } from '../../core/checkin/bagLedger';
import { legendOf } from '../../data/canvas';
import {
  addBagEntry,
  addTrashRecord,
  bagFacts,
  bagRows,
  countedBags,
  findBagEntry,
  type TrashEntry,
  trashEntries,
} from '../../data/checkin';
import type { Database, Queries } from '../../data/engine/database';
import { standingOf } from '../../data/history';
import { isOverdrawn, returnToStash, takeAgainFromStash } from '../../data/stash';
import { once } from '../http/once';
import { conflict, notFound, unreadable } from '../http/problem';
import type { BagAnswer } from './contract';
import { type Heap, heapOf, noteHeap } from './heap';
import { bagAnswer } from './view';

/** A bag as it is to be entered into the ledger. */
export interface BagRequest {
  id: string;
  line: number | null;
  label: string;
  drills: number | null;
  how: BagMeasure;
  spread: number | null;
  shared: readonly SharedError[];
  origin: BagOrigin | null;
  assigns: string | null;
  changes: string | null;
  removes: string | null;
  undoes: string | null;
  redoes: string | null;
}

/**
 * Counts a bag, changes or removes one, gives a stray to a colour, or takes an entry back or makes it again. The same
 * request a second time changes nothing.
 * @returns what it changed, as of the moment at which it stands
 * @throws Problem when the entry to take back does not (or no longer) stand, the colour or bag does not exist, or the id
 * is taken
 */
export async function enterBag(
  database: Database,
  canvas: Canvas,
  bag: BagRequest,
  screenId: string | null = null,
): Promise<BagAnswer> {
  const request = { id: bag.id, what: 'bag', canvasId: canvas.id, content: bag };
  let heap: Heap | null = null;
  const enter = async (queries: Queries) => {
    const legend = await legendOf(queries, canvas.id);
    const line = ofLine(legend, bag.line);
    if (bag.line !== null && !line) throw unreadable('The colour list no longer has this colour.');
    const happenedAt = new Date().toISOString();
    const entry = await entryOf(queries, canvas, bag, line);
    await addBagEntry(queries, { id: bag.id, canvasId: canvas.id, screenId, happenedAt, ...entry });
    await moveStash(queries, bag, entry, happenedAt);
    heap = await noteHeap(queries, canvas, legend);
  };
  return once(database, request, enter, async (queries) => {
    heap ??= await heapOf(queries, canvas.id);
    const { rows } = heap;
    const entries = [bag.id, bag.undoes, bag.redoes, bag.changes, bag.removes, bag.assigns];
    const lines = entries.flatMap((id) => (id === null ? [] : linesOfEntry(rows, id)));
    return bagAnswer(queries, canvas, heap, [bag.line, ...lines], screenId);
  });
}

type EntryBody = Omit<BagRow, 'id'>;

async function entryOf(
  queries: Queries,
  canvas: Canvas,
  bag: BagRequest,
  line: LegendLine | undefined,
): Promise<EntryBody> {
  if (bag.undoes !== null || bag.redoes !== null) return repeatOrTakeBack(queries, canvas, bag);
  const subject = bag.assigns ?? bag.changes ?? bag.removes;
  if (subject === null) return freshCount(bag, line, canvas);
  const known = (await countedBags(queries, canvas.id)).bags.find(({ id }) => id === subject);
  if (!known) throw notFound('such bag');
  if (bag.assigns !== null) return assignment(bag, known);
  return bag.removes !== null ? aboutBag('remove', known) : change(bag, known, line);
}

/** Drills that came from the stash go back there with their bag, and come again with it. */
async function moveStash(
  queries: Queries,
  bag: BagRequest,
  entry: EntryBody,
  happenedAt: string,
): Promise<void> {
  const removal = entry.kind === 'take back' && bag.undoes !== null && (await isRemoval(queries, bag.undoes));
  if (bag.removes !== null) await returnToStash(queries, bag.removes, happenedAt);
  else if (removal) await takeAgainFromStash(queries, entry.subject!, entry.subject!, happenedAt);
  else if (bag.undoes !== null && entry.subject === null) {
    await returnToStash(queries, bag.undoes, happenedAt);
  } else if (bag.redoes !== null && entry.kind === 'remove') {
    await returnToStash(queries, entry.subject!, happenedAt);
  } else if (bag.redoes !== null && entry.kind === 'count') {
    await takeAgainFromStash(queries, bag.redoes, bag.id, happenedAt);
  }
  if ((removal || bag.redoes !== null) && (await isOverdrawn(queries, entry.subject ?? bag.id))) {
    throw conflict('The stash no longer has the drills of this bag; they were used elsewhere.');
  }
}

async function isRemoval(queries: Queries, id: string): Promise<boolean> {
  return (await bagFacts(queries, [id]))[0]?.kind === 'remove';
}

async function repeatOrTakeBack(queries: Queries, canvas: Canvas, bag: BagRequest): Promise<EntryBody> {
  const id = (bag.undoes ?? bag.redoes)!;
  const standing = await standingOf(queries, 'bag_entry', canvas.id, id);
  const target = standing === 'unknown' ? null : await findBagEntry(queries, canvas.id, id);
  if (!target) throw notFound('such bag');
  if (bag.undoes !== null) {
    if (standing !== 'stands') throw conflict('This was undone already, perhaps at another screen.');
    const later = laterOnSameBag(await bagRows(queries, canvas.id), id);
    // A bag that was moved and then changed is taken back step by step, the last first.
    if (later) {
      const legend = await legendOf(queries, canvas.id);
      throw conflict(`Later this happened to the same bag: ${bagInWords(later, legend)}. Undo that first.`);
    }
  } else if (standing !== 'taken back') {
    throw conflict('This bag can no longer be counted again; count it as a new one.');
  }
  const kind = bag.undoes === null ? target.kind : 'take back';
  const { id: _, ...said } = target;
  return { ...said, kind, undoes: bag.undoes, redoes: bag.redoes };
}

/** A row about a bag that says what the bag is already. */
function aboutBag(
  kind: BagRow['kind'],
  { id, line, label, drills, how, spread, shared, origin }: CountedBag,
): EntryBody {
  return { kind, line, label, drills, how, spread, shared, origin, subject: id, undoes: null, redoes: null };
}

function assignment(bag: BagRequest, stray: CountedBag): EntryBody {
  if (stray.line !== null) throw conflict('This bag already has its colour.');
  if (bag.line === null) throw unreadable('Say to which colour the bag goes.');
  return { ...aboutBag('assign', stray), line: bag.line };
}

function change(bag: BagRequest, known: CountedBag, line: LegendLine | undefined): EntryBody {
  const said = freshEntry(bag, line, known.drills);
  const origin = bag.origin ?? known.origin;
  if ((known.origin === 'stash') !== (origin === 'stash')) {
    throw unreadable('A bag comes from the stash by taking it there; remove this one and take it again.');
  }
  if (known.origin === 'stash' && said.drills !== known.drills) {
    throw unreadable('These drills came from the stash. Remove the bag, and take the right number there.');
  }
  return { ...aboutBag('change', known), ...said, label: bag.label || known.label, origin };
}

function freshCount(bag: BagRequest, line: LegendLine | undefined, canvas: Canvas): EntryBody {
  if (bag.origin === 'stash')
    throw unreadable('Drills from the stash are taken there, so that it knows of them.');
  return {
    kind: 'count',
    ...freshEntry(bag, line, canvas.packetDrills),
    origin: bag.origin ?? 'kit',
    subject: null,
    undoes: null,
    redoes: null,
  };
}

function freshEntry(
  bag: BagRequest,
  line: LegendLine | undefined,
  usualDrills: number,
): Pick<BagRow, 'line' | 'label' | 'drills' | 'how' | 'spread' | 'shared'> {
  if (!line && bag.label === '' && bag.changes === null)
    throw unreadable('A bag of no colour in the list needs its code as a label.');
  if (isEstimated(bag.how) && bag.spread === null)
    throw unreadable('A bag that was weighed or counted on a photo needs its uncertainty.');
  return {
    line: bag.line,
    label: bag.label || line?.code || '',
    drills: bag.drills ?? usualDrills,
    how: bag.how,
    spread: bag.how === 'counted' ? 0 : isEstimated(bag.how) ? bag.spread : null,
    shared: bag.how === 'weighed' ? bag.shared : [],
  };
}

/**
 * Records bad drills among those that went through the hand, or corrects, removes or brings back an earlier record.
 * @throws Problem when that record is not there or was corrected meanwhile, or the id is taken
 */
export async function recordTrash(database: Database, canvas: Canvas, record: TrashEntry): Promise<void> {
  const request = { id: record.id, what: 'trash', canvasId: canvas.id, content: record };
  await once(database, request, async (queries) => {
    let happenedAt = new Date().toISOString();
    if (record.replaces !== null) {
      const standing = (await trashEntries(queries, canvas.id)).find(({ id }) => id === record.replaces);
      if (!standing) throw conflict('This record was corrected meanwhile, perhaps at another screen.');
      happenedAt = standing.happenedAt;
    }
    await addTrashRecord(queries, canvas.id, record, happenedAt);
  });
}
