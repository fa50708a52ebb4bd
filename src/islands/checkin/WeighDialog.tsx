import { useMemo, useState } from 'react';
import type { Canvas } from '../../core/canvas/canvas';
import type { LegendLine } from '../../core/canvas/legend';
import { ofLine } from '../../core/canvas/legend';
import { seededRandom } from '../../core/chance/random';
import { nominalSpread } from '../../core/checkin/filling';
import { POCKET_SCALE } from '../../core/checkin/simulatedScale';
import { type LineSupply, lackOf } from '../../core/checkin/supply';
import {
  countByWeight,
  sampleInWords,
  USUAL_DRILL_VARIATION,
  type WeighedSample,
  weighedInWords,
} from '../../core/checkin/weighing';
import { readNumber } from '../../core/words/numbers';
import { Dialog } from '../../ui/Dialog';
import { Notice } from '../../ui/Notice';
import { NumberField } from '../../ui/NumberField';
import { ToggleButton } from '../../ui/ToggleButton';
import { inWords } from '../writing/api';
import { type ScaleSource, serial, serialSource, simulatedSource } from './scale/scaleSource';
import { useScale } from './scale/useScale';

/** What the stand-in's imaginary drills and bags weigh, in grams. */
const STAND_IN = { drillGrams: 0.0062, bagGrams: 0.48 };
const FIRST_SAMPLE = 50;

/** Which sample belongs to which: drills of one shape and finish, on one scale. */
const sampleKey = (canvas: Canvas, line: LegendLine, scale: string) =>
  `oculent-sample-${canvas.shape}-${line.finish}-${scale}`;

/** Counts the drills of a bag by weight: a counted sample once, the empty bag, the full bag. */
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
  onCount: (line: LegendLine, drills: number, spread: number) => void;
}) {
  const [line, setLine] = useState(first ?? legend[0]!);
  const [source, setSource] = useState<ScaleSource | null>(null);
  const typing = source === null;
  const [resolution, setResolution] = useState(POCKET_SCALE.resolutionGrams);
  const [pieces, setPieces] = useState(FIRST_SAMPLE);
  const [sample, setSample] = useState<WeighedSample | null>(null);
  const [bagGrams, setBagGrams] = useState<number | null>(null);
  const [fullGrams, setFullGrams] = useState<number | null>(null);
  const [busy, setBusy] = useState(false);
  const [fault, setFault] = useState<string | null>(null);
  const scale = useScale(source, resolution);
  const setup = { resolutionGrams: resolution, drillVariation: USUAL_DRILL_VARIATION };
  /** The stand-in's bag holds about an ordinary packet; only the scale knows how many. */
  const hidden = useMemo(() => {
    const random = seededRandom(Math.floor(Math.random() * 2 ** 31));
    return Math.round(canvas.packetDrills + nominalSpread(canvas.packetDrills) * random.normal());
  }, [canvas.packetDrills]);

  const simulated = source?.load !== undefined;
  const scaleName = `${simulated ? 'simulated' : 'own'}-${resolution}`;
  const use = (next: ScaleSource) => {
    source?.close();
    setSource(next);
    setFullGrams(null);
    setSample(storedSample(sampleKey(canvas, line, `${next.load ? 'simulated' : 'own'}-${resolution}`)));
  };
  const take = async (load: number, then: (grams: number) => void) => {
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
  const takeSample = (grams: number) => {
    const next = { pieces, grams };
    setSample(next);
    localStorage.setItem(sampleKey(canvas, line, scaleName), JSON.stringify(next));
  };

  let result: ReturnType<typeof countByWeight> | null = null;
  let nonsense: string | null = null;
  if (sample && bagGrams !== null && fullGrams !== null) {
    try {
      result = countByWeight(sample, fullGrams, bagGrams, setup);
    } catch (error) {
      nonsense = inWords(error);
    }
  }
  const own = ofLine(supply, line.line)!;
  const lacking = lackOf(own).drills;
  const drillGrams = sample ? sample.grams / sample.pieces : STAND_IN.drillGrams;
  return (
    <Dialog title="Count a bag by its weight" width={46} open onClose={onClose}>
      <div className="mb-3 flex flex-wrap items-end gap-3">
        <label>
          <span className="block font-semibold">Colour</span>
          <select
            className="field number"
            value={line.line}
            onChange={(event) => {
              const next = ofLine(legend, Number(event.target.value))!;
              setLine(next);
              setSample(storedSample(sampleKey(canvas, next, scaleName)));
              setFullGrams(null);
            }}
          >
            {legend.map((each) => (
              <option key={each.line} value={each.line}>
                {each.code}
              </option>
            ))}
          </select>
        </label>
        <label>
          <span className="block font-semibold">Scale shows steps of</span>
          <select
            className="field"
            value={resolution}
            onChange={(event) => {
              // Another step is another scale: its readings and its sample begin anew.
              setResolution(Number(event.target.value));
              source?.close();
              setSource(null);
              setSample(null);
              setBagGrams(null);
              setFullGrams(null);
            }}
          >
            <option value={0.001}>0.001 g</option>
            <option value={0.01}>0.01 g</option>
            <option value={0.1}>0.1 g</option>
            <option value={1}>1 g</option>
          </select>
        </label>
        <ToggleButton
          on={typing}
          onChange={() => {
            source?.close();
            setSource(null);
          }}
        >
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
              use(simulatedSource({ ...POCKET_SCALE, resolutionGrams: resolution }, Date.now() % 2 ** 31))
            }
          >
            Simulated scale
          </button>
        )}
      </div>
      {!typing && (
        <p className="mb-3" aria-live="off">
          <span className="big-number">
            {scale.reading === null
              ? '– g'
              : scale.reading === 'over'
                ? 'too heavy'
                : `${scale.reading.grams} g`}
          </span>{' '}
          {scale.reading !== null &&
            scale.reading !== 'over' &&
            (scale.reading.stable ? 'at rest' : 'not at rest yet')}
        </p>
      )}
      <ol className="flex flex-col gap-3">
        <li className="flex flex-wrap items-end gap-3">
          <NumberField
            words="1. A counted sample of this shape and finish"
            className="[&_input]:!w-28"
            value={pieces}
            least={1}
            most={2000}
            whole
            onChange={(next) => {
              setPieces(next);
              // Grams that were typed belong to the number that stood there.
              if (typing) setSample(null);
            }}
          />
          {typing ? (
            <GramsField
              key={`${line.line} ${pieces}`}
              words={`What ${pieces} weigh, in grams`}
              onGrams={takeSample}
            />
          ) : (
            <button
              type="button"
              className="button"
              disabled={busy}
              onClick={() => void take(pieces * STAND_IN.drillGrams, takeSample)}
            >
              Weigh these {pieces}
            </button>
          )}
          {sample && (
            <p className="number">
              {sample.pieces} weigh {sample.grams.toFixed(3)} g
            </p>
          )}
          <p className="w-full text-[0.95rem] text-faded">
            {sampleInWords(lacking, canvas.packetDrills, drillGrams, setup)}
          </p>
        </li>
        <li className="flex flex-wrap items-center gap-3">
          <span className="font-semibold">2. The empty bag</span>
          {typing ? (
            <GramsField words="Grams of the empty bag; 0 after taring it" onGrams={setBagGrams} />
          ) : (
            <button
              type="button"
              className="button"
              disabled={busy}
              onClick={() => void take(STAND_IN.bagGrams, setBagGrams)}
            >
              Weigh the empty bag
            </button>
          )}
          {bagGrams !== null && <span className="number">{bagGrams.toFixed(3)} g</span>}
        </li>
        <li className="flex flex-wrap items-center gap-3">
          <span className="font-semibold">3. The full bag</span>
          {typing ? (
            <GramsField key={line.line} words="Grams of the full bag" onGrams={setFullGrams} />
          ) : (
            <button
              type="button"
              className="button"
              disabled={busy}
              onClick={() => void take(STAND_IN.bagGrams + hidden * STAND_IN.drillGrams, setFullGrams)}
            >
              Weigh the full bag
            </button>
          )}
          {fullGrams !== null && <span className="number">{fullGrams.toFixed(3)} g</span>}
        </li>
      </ol>
      <div aria-live="polite" className="mt-3">
        {busy && <p>Waiting for the scale to come to rest…</p>}
        {(fault ?? nonsense) && <Notice kind="fault">{fault ?? nonsense}</Notice>}
        {result && (
          <div className="flex flex-wrap items-center justify-between gap-3">
            <p className="text-xl font-semibold" data-testid="weighed">
              {weighedInWords(result)}
            </p>
            <button
              type="button"
              className="button button-main"
              onClick={() => onCount(line, Math.round(result.drills), result.uncertainty)}
            >
              Count this bag for {line.code}
            </button>
          </div>
        )}
      </div>
    </Dialog>
  );
}

/** The grams that a display shows, typed in, with a decimal comma or point. */
function GramsField({ words, onGrams }: { words: string; onGrams: (grams: number) => void }) {
  const [text, setText] = useState('');
  const grams = readNumber(text);
  const fits = text === '' || (grams !== null && grams >= 0 && grams <= MOST_GRAMS);
  return (
    <label className="block">
      <span className="mb-0.5 block text-[0.95rem] leading-tight">{words}</span>
      <input
        className={`field number !w-36 ${fits ? '' : 'field-fault'}`}
        inputMode="decimal"
        value={text}
        aria-invalid={!fits}
        onChange={(event) => {
          setText(event.target.value);
          const next = readNumber(event.target.value);
          if (next !== null && next >= 0 && next <= MOST_GRAMS) onGrams(next);
        }}
      />
      {!fits && (
        <span role="alert" className="block text-[0.95rem] text-alarm">
          0 to {MOST_GRAMS.toLocaleString('en')} g
        </span>
      )}
    </label>
  );
}

/** No bag of drills weighs more. */
const MOST_GRAMS = 5000;

/**
 * Whether the stand-in for a scale may be used: where the demo or a test asks for it. In a real record it would write
 * down what nobody weighed.
 */
function mayBeSimulated(): boolean {
  return document.documentElement.dataset.simulated !== undefined;
}

/** The sample weighed last for a key, kept on this device because it belongs to its scale. */
function storedSample(key: string): WeighedSample | null {
  const stored = localStorage.getItem(key);
  return stored ? (JSON.parse(stored) as WeighedSample) : null;
}
