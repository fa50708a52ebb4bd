import { useEffect, useState } from 'react';
import type { LegendLine } from '../../core/canvas/legend';
import { ofLine } from '../../core/canvas/legend';
import { locksIn, locksOf, withLocks } from '../../core/kitup/locks';
import { counted } from '../../core/words/numbers';
import type { KitupView, SlotView } from '../../server/kitup/contract';
import type { ShelfEntry } from '../../server/shelf/contract';
import { Notice } from '../../ui/Notice';
import { TermWord } from '../../ui/TermWord';
import { withLegend } from '../../ui/withLegend';
import { StartLayouts } from '../storage/StartLayouts';
import { Beside } from './Beside';
import { CaseDrawing } from './CaseDrawing';
import { KitupNav } from './KitupNav';
import { NoSheet } from './NoSheet';
import { PlanPanel, type PlanWish, standingWish } from './PlanPanel';
import { SlotSlip } from './SlotSlip';
import { useKitup } from './useKitup';

interface KitupProps {
  entry: ShelfEntry;
  legend: LegendLine[];
  first: KitupView;
  /** Colour named in the address, as on a label. */
  asked: number | null;
}

/** Where every colour lives: the case with its pots, what stands beside it, and what the plan goes by. */
export const KitupStation = withLegend(KitupStationWithList);

function KitupStationWithList(props: KitupProps) {
  return (
    <>
      <KitupNav canvasId={props.entry.canvas.id} here="" />
      {props.legend.length === 0 ? <NoSheet canvasId={props.entry.canvas.id} /> : <Cases {...props} />}
    </>
  );
}

function Cases({ entry, legend, first, asked }: KitupProps) {
  const { canvas } = entry;
  const { view, fault, plan, busy, withoutCases } = useKitup(canvas.id, first);
  const [line, setLine] = useState(legend.some((each) => each.line === asked) ? asked : null);
  const [moving, setMoving] = useState(false);
  const slots = view.cases.flatMap(({ storage, slots: all }) => all.map((slot) => ({ storage, slot })));
  const lit = line === null ? [] : slots.filter(({ slot }) => slot.line === line);
  const locks = locksOf(view.cases);
  const replan = ({ storageIds, ...wish }: PlanWish, kept = locks) =>
    plan({ storageIds, ...wish, locks: locksIn(kept, storageIds) });
  const standing = standingWish(view);
  const choose = (storageId: string, slot: SlotView) => {
    if (!moving || line === null || !standing) {
      setLine(slot.line);
      return;
    }
    setMoving(false);
    void replan(standing, withLocks(locks, line, [{ line, storageId, slot: slot.slot }]));
  };
  useEffect(() => {
    const leave = (event: KeyboardEvent) => {
      if (event.key === 'Escape') setMoving(false);
    };
    window.addEventListener('keydown', leave);
    return () => window.removeEventListener('keydown', leave);
  }, []);
  const inPots = new Set(slots.flatMap(({ slot }) => slot.line ?? [])).size;
  const inBags = view.bags.filter((bag) => bag.whole).length;
  const overflow = view.bags.length - inBags;

  return (
    <div className="grid items-start gap-x-6 gap-y-3 lg:grid-cols-[22rem_1fr] lg:grid-rows-[auto_1fr]">
      <section className="flex flex-col gap-3" aria-label="The plan">
        {view.noCases ? (
          <div>
            <p className="big-number">No cases</p>
            <p>You work straight from the bags of this kit; labels for bags are under “Labels”.</p>
            <button type="button" className="button mt-3" onClick={() => withoutCases(false)}>
              Use cases after all
            </button>
          </div>
        ) : view.plan ? (
          <div>
            <p className="big-number">
              {inBags > 0
                ? `${inBags} stay in bags`
                : overflow > 0
                  ? counted(overflow, 'overflow bag')
                  : 'All fit'}
            </p>
            <p data-testid="plan-sentence">
              {counted(inPots, 'colour')} in <TermWord term="pot">pots</TermWord>, {inBags} in their bags;{' '}
              {counted(overflow, 'overflow bag')}, {counted(view.refills.length, 'refill')}.
            </p>
          </div>
        ) : (
          <div>
            <p className="big-number">{counted(legend.length, 'colour')}</p>
            <p>
              {view.storages.length > 0
                ? 'Choose the cases that will hold this kit, then plan the pots.'
                : 'Start with a case like yours; its slots can be redrawn.'}
            </p>
            <button type="button" className="button mt-3" onClick={() => withoutCases(true)}>
              I need no cases
            </button>
          </div>
        )}
        {fault && <Notice kind="fault">{fault}</Notice>}
        {line !== null && (
          <SlotSlip
            line={ofLine(legend, line)!}
            slots={lit.map(({ slot }) => slot)}
            view={view}
            shape={canvas.shape}
            canvasId={canvas.id}
            hasChart={entry.hasChart}
            moving={moving}
            onMove={() => setMoving(!moving)}
            onLock={(locked) => {
              if (!standing) return;
              const own = lit.map(({ storage, slot }) => ({ line, storageId: storage.id, slot: slot.slot }));
              void replan(standing, withLocks(locks, line, locked ? own : []));
            }}
          />
        )}
      </section>
      <section className="flex min-w-0 flex-col gap-5 lg:row-span-2" aria-label="The cases">
        {view.cases.map(({ storage, slots: all }) => (
          <CaseDrawing
            key={storage.id}
            storage={storage}
            slots={all}
            legend={legend}
            shape={canvas.shape}
            filled={new Set(view.filled)}
            lit={line}
            onChoose={(slot) => choose(storage.id, slot)}
          />
        ))}
        {view.storages.length === 0 && !view.noCases && (
          <StartLayouts onAdded={() => window.location.reload()} />
        )}
        <Beside view={view} legend={legend} shape={canvas.shape} />
      </section>
      {view.storages.length > 0 && !view.noCases && <PlanPanel view={view} busy={busy} onPlan={replan} />}
    </div>
  );
}
