import { useRef, useState } from 'react';
import type { Canvas } from '../../../core/canvas/canvas';
import { type LegendLine, ofLine } from '../../../core/canvas/legend';
import { seededRandom } from '../../../core/chance/random';
import { nominalSpread } from '../../../core/checkin/filling';
import { POCKET_SCALE } from '../../../core/checkin/simulatedScale';
import { type LineSupply, lackOf } from '../../../core/checkin/supply';
import {
  readOff,
  type ScaleSetup,
  sampleInWords,
  type WeighedCount,
  type Weight,
  weighedInWords,
} from '../../../core/checkin/weighing';
import { counted } from '../../../core/words/numbers';
import { Dialog } from '../../../ui/Dialog';
import { Notice } from '../../../ui/Notice';
import { NumberField } from '../../../ui/NumberField';
import { mayBeSimulated } from '../../../ui/standIns';
import { ToggleButton } from '../../../ui/ToggleButton';
import { inWords } from '../../writing/api';
import { GramsField } from './GramsField';
import { type ScaleSource, serial, serialSource, simulatedSource } from './scale/scaleSource';
import { useScale } from './scale/useScale';
import { useWeighing, type Weighing, ZERO_FIRST } from './useWeighing';

/** What the stand-in's imaginary drills and bags weigh, in grams. */
const STAND_IN = { drillGrams: 0.0062, bagGrams: 0.48 };
const FIRST_SAMPLE = 50;
const STEPS_GRAMS = [0.001, 0.01, 0.1, 1];

/** A bag that was weighed and counted since the dialog was opened. */
interface Done {
  code: string;
  count: WeighedCount;
}

/**
 * Counts bags by their weight, one after another: zero, a counted sample and an empty bag once, then each full bag.
 * Before every bag the scale can be zeroed again, and must be once its zero has grown old.
 */
export function WeighDialog({
  canvas,
  legend,
  supply,
  first,
  onClose,
  onCount,
}: {
  canvas: Canvas;
  legend: LegendLine[];
  supply: LineSupply[];
  first: LegendLine | null;
  onClose: () => void;
  onCount: (line: LegendLine, count: WeighedCount) => void;
}) {
  const [line, setLine] = useState(first ?? legend[0]!);
  const [source, setSource] = useState<ScaleSource | null>(null);
  const [step, setStep] = useState(POCKET_SCALE.resolutionGrams);
  const [done, setDone] = useState<Done[]>([]);
  const [busy, setBusy] = useState(false);
  const [fault, setFault] = useState<string | null>(null);
  const scale = useScale(source, step);
  const display = { stepGrams: step };
  const typing = source === null;
  const simulated = source?.load !== undefined;
  const weighing = useWeighing(canvas, line, `${simulated ? 'simulated' : 'own'}-${step}`, step);
  const standIn = useStandIn(canvas.packetDrills);

  const use = (next: ScaleSource | null) => {
    source?.close();
    setSource(next);
    setFault(null);
    weighing.forgetFull();
  };
  /** Reads the scale once it is steady. @param load what a stand-in is loaded with, in grams; 0 for the empty pan */
  const read = async (load: number, then: (shown: Weight) => void) => {
    // Nobody waits for a weight that could not be reckoned from.
    if (load > 0 && !weighing.zero) return setFault(ZERO_FIRST);
    setBusy(true);
    setFault(null);
    source?.load?.(load);
    try {
      then(await scale.take());
    } catch (error) {
      setFault(inWords(error));
    }
    setBusy(false);
  };
  const countIt = () => {
    if (!weighing.count) return;
    onCount(line, weighing.count);
    setDone((before) => [...before, { code: line.code, count: weighing.count! }]);
    weighing.forgetFull();
    standIn.nextBag();
  };
  const words = fault ?? weighing.fault;
  const lacking = lackOf(ofLine(supply, line.line)!).drills;
  const drillGrams = weighing.sample ? weighing.sample.grams / weighing.sample.pieces : STAND_IN.drillGrams;
  return (
    <Dialog title="Count bags by their weight" width={46} open onClose={onClose}>
      <div className="mb-3 flex flex-wrap items-end gap-3">
        <label>
          <span className="block font-semibold">The scale shows steps of</span>
          <select
            className="field"
            value={step}
            onChange={(event) => {
              // Another step is another scale: its readings and its sample begin anew.
              use(null);
              setStep(Number(event.target.value));
            }}
          >
            {STEPS_GRAMS.map((grams) => (
              <option key={grams} value={grams}>
                {grams} g
              </option>
            ))}
          </select>
        </label>
        <ToggleButton on={typing} onChange={() => use(null)}>
          Type the grams
        </ToggleButton>
        <button
          type="button"
          className={`button ${source && !simulated ? 'button-on' : ''}`}
          disabled={!serial()}
          title={serial() ? undefined : 'This browser cannot speak to serial ports'}
          onClick={() => {
            const ports = serial();
            if (ports) serialSource(ports).then(use, (error: unknown) => setFault(inWords(error)));
          }}
        >
          My scale
        </button>
        {mayBeSimulated() && (
          <button
            type="button"
            className={`button ${simulated ? 'button-on' : ''}`}
            onClick={() =>
              use(simulatedSource({ ...POCKET_SCALE, resolutionGrams: step }, Date.now() % 2 ** 31))
            }
          >
            Simulated scale
          </button>
        )}
      </div>
      {/* On a line of its own: as its words change, nothing below may move under a finger. */}
      {!typing && (
        <p aria-live="off" className="mb-2 whitespace-nowrap">
          <span className="big-number">
            {scale.reading === null
              ? '– g'
              : scale.reading === 'over'
                ? 'too heavy'
                : `${scale.reading.grams} g`}
          </span>{' '}
          {scale.reading !== null &&
            scale.reading !== 'over' &&
            (scale.reading.stable ? 'steady' : 'not steady yet')}
        </p>
      )}
      <ol className="flex flex-col divide-y divide-line">
        <ZeroStep
          weighing={weighing}
          display={display}
          typing={typing}
          busy={busy}
          onRead={() => void read(0, weighing.setZero)}
        />
        <SampleStep
          weighing={weighing}
          display={display}
          typing={typing}
          busy={busy}
          advice={sampleInWords(lacking, canvas.packetDrills, drillGrams, display)}
          onRead={(pieces) =>
            void read(pieces * STAND_IN.drillGrams, (shown) => weighing.takeSample(pieces, shown))
          }
        />
        <TareStep
          weighing={weighing}
          display={display}
          typing={typing}
          busy={busy}
          onRead={(eachItsOwn) =>
            void read(STAND_IN.bagGrams, (shown) => weighing.takeTare(shown, eachItsOwn))
          }
        />
        <li className="flex flex-wrap items-end gap-3 py-2.5">
          <StepName number={4}>The full bag</StepName>
          <label>
            <span className="mb-0.5 block text-[0.95rem] leading-tight">Colour</span>
            <select
              className="field number !w-32"
              value={line.line}
              onChange={(event) => setLine(ofLine(legend, Number(event.target.value))!)}
            >
              {legend.map((each) => (
                <option key={each.line} value={each.line}>
                  {each.code}
                </option>
              ))}
            </select>
          </label>
          {typing ? (
            <GramsField
              key={`${line.line} ${done.length} ${weighing.zero?.at}`}
              words="Grams of the full bag"
              display={display}
              onGrams={(grams) =>
                grams === null ? weighing.forgetFull() : weighing.takeFull(readOff(grams, display))
              }
              onEnter={countIt}
            />
          ) : (
            <button
              type="button"
              className="button"
              disabled={busy}
              onClick={() => void read(standIn.fullGrams(), weighing.takeFull)}
            >
              Weigh the full bag
            </button>
          )}
          {weighing.full && <span className="number py-2.5">{weighing.full.grams.toFixed(3)} g</span>}
        </li>
      </ol>
      <div aria-live="polite" className="mt-1">
        {busy && <p>Waiting for the scale to settle…</p>}
        {words && <Notice kind="fault">{words}</Notice>}
        {weighing.count && (
          <div className="flex flex-wrap items-center justify-between gap-3">
            <p className="text-xl font-semibold" data-testid="weighed">
              {weighedInWords([weighing.count])}
            </p>
            <button type="button" className="button button-main" onClick={countIt}>
              Count this bag for {line.code}
            </button>
          </div>
        )}
        {done.length > 0 && <DoneList done={done} />}
      </div>
    </Dialog>
  );
}

function StepName({ number, children }: { number: number; children: string }) {
  return (
    <p className="w-44 py-2.5 font-semibold">
      {number}. {children}
    </p>
  );
}

interface StepProps<Read> {
  weighing: Weighing;
  display: ScaleSetup;
  /** Grams are typed, not read from a scale. */
  typing: boolean;
  busy: boolean;
  onRead: Read;
}

function ZeroStep({ weighing, display, typing, busy, onRead }: StepProps<() => void>) {
  const [shown, setShown] = useState(0);
  return (
    <li className="flex flex-wrap items-end gap-3 py-2.5">
      <StepName number={1}>Nothing on it</StepName>
      {typing && (
        <NumberField
          words="The display shows, in grams"
          className="[&_input]:!w-36"
          value={shown}
          least={-5000}
          most={5000}
          onChange={setShown}
        />
      )}
      <button
        type="button"
        className="button"
        disabled={busy}
        onClick={() => (typing ? weighing.setZero(readOff(shown, display)) : onRead())}
      >
        {weighing.zero ? 'Zero it again' : 'Zero the scale'}
      </button>
      {weighing.zero && (
        <p className="py-2.5">
          Zeroed at <span className="number">{new Date(weighing.zero.at).toLocaleTimeString('en-GB')}</span>
        </p>
      )}
    </li>
  );
}

function SampleStep({
  weighing,
  display,
  typing,
  busy,
  advice,
  onRead,
}: StepProps<(pieces: number) => void> & { advice: string }) {
  const [pieces, setPieces] = useState(weighing.sample?.pieces ?? FIRST_SAMPLE);
  return (
    <li className="py-2.5">
      <div className="flex flex-wrap items-end gap-3">
        <StepName number={2}>A counted sample</StepName>
        <NumberField
          words="Drills in it"
          className="[&_input]:!w-24"
          value={pieces}
          least={1}
          most={2000}
          whole
          onChange={(next) => {
            setPieces(next);
            // Grams that were typed belong to the number that stood there.
            if (typing) weighing.forgetSample();
          }}
        />
        {typing ? (
          <GramsField
            key={pieces}
            words={`What ${pieces} weigh, in grams`}
            display={display}
            onGrams={(grams) =>
              grams === null
                ? weighing.forgetSample()
                : weighing.takeSample(pieces, readOff(grams, display), true)
            }
            onDone={weighing.keepSample}
          />
        ) : (
          <button type="button" className="button" disabled={busy} onClick={() => onRead(pieces)}>
            Weigh these {pieces}
          </button>
        )}
        {weighing.sample && (
          <p className="number py-2.5">
            {weighing.sample.pieces} weigh {weighing.sample.grams.toFixed(3)} g
          </p>
        )}
      </div>
      <p className="text-[0.95rem] text-faded">
        Take drills of the same kit, shape and finish. An error here shifts every bag that is weighed, so
        count carefully. {advice}
      </p>
    </li>
  );
}

function TareStep({ weighing, display, typing, busy, onRead }: StepProps<(eachItsOwn: boolean) => void>) {
  const [eachItsOwn, setEachItsOwn] = useState(true);
  const what = eachItsOwn ? 'the empty bag' : 'the empty dish';
  return (
    <li className="flex flex-wrap items-end gap-3 py-2.5">
      <StepName number={3}>Without drills</StepName>
      <label>
        <span className="mb-0.5 block text-[0.95rem] leading-tight">Weighed in</span>
        <select
          className="field !w-56"
          value={eachItsOwn ? 'bag' : 'dish'}
          onChange={(event) => setEachItsOwn(event.target.value === 'bag')}
        >
          <option value="bag">their bags, all alike</option>
          <option value="dish">one dish for all</option>
        </select>
      </label>
      {typing ? (
        <GramsField
          key={String(eachItsOwn)}
          words={`Grams of ${what}`}
          display={display}
          onGrams={(grams) =>
            grams === null ? weighing.forgetTare() : weighing.takeTare(readOff(grams, display), eachItsOwn)
          }
        />
      ) : (
        <button type="button" className="button" disabled={busy} onClick={() => onRead(eachItsOwn)}>
          Weigh {what}
        </button>
      )}
      {weighing.tare && <p className="number py-2.5">{weighing.tare.grams.toFixed(3)} g</p>}
    </li>
  );
}

/** What was weighed so far, and what all of it comes to. */
function DoneList({ done }: { done: Done[] }) {
  return (
    <div className="mt-3 border-line border-t pt-2" data-testid="weighed-so-far">
      <p className="font-semibold">
        {counted(done.length, 'bag')} weighed: {weighedInWords(done.map(({ count }) => count))}
      </p>
      <ul className="flex flex-wrap gap-x-5">
        {done.map(({ code, count }, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: bags are only added at the end
          <li key={i}>
            <span translate="no" className="number font-semibold">
              {code}
            </span>{' '}
            {weighedInWords([count])}
          </li>
        ))}
      </ul>
    </div>
  );
}

/** The stand-in's next bag holds about an ordinary packet; only the scale knows how many. */
function useStandIn(packetDrills: number): { fullGrams(): number; nextBag(): void } {
  const drills = useRef<number | null>(null);
  return {
    fullGrams: () => {
      const random = seededRandom(Math.floor(Math.random() * 2 ** 31));
      drills.current ??= Math.round(packetDrills + nominalSpread(packetDrills) * random.normal());
      return STAND_IN.bagGrams + drills.current * STAND_IN.drillGrams;
    },
    nextBag: () => {
      drills.current = null;
    },
  };
}
