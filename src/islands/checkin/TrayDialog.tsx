import { useEffect, useState } from 'react';
import type { Canvas } from '../../core/canvas/canvas';
import { type LegendLine, ofLine } from '../../core/canvas/legend';
import { seededRandom } from '../../core/chance/random';
import { expanded } from '../../core/checkin/weighing';
import { hexToRgb, UNKNOWN_COLOUR } from '../../core/colour/rgb';
import { faultInPhoto } from '../../core/inspection/photo';
import type { LooseCount } from '../../core/reading/looseDrills';
import { counted, many } from '../../core/words/numbers';
import { Colour } from '../../ui/Chip';
import { Dialog } from '../../ui/Dialog';
import { FilePicker } from '../../ui/FilePicker';
import { Camera } from '../../ui/icons';
import { Notice } from '../../ui/Notice';
import { mayBeSimulated } from '../../ui/standIns';
import { useThreads } from '../reading/useReading';
import { useWork } from '../reading/useWork';

/** Trays of the stand-in: dark under light drills, light under dark ones. */
const TRAYS = { light: [240, 240, 236], dark: [38, 36, 40] } as const;

/** Counts loose drills on a photo of a tray, colour after colour. */
export function TrayDialog({
  canvas,
  legend,
  first,
  onClose,
  onCount,
}: {
  canvas: Canvas;
  legend: LegendLine[];
  first: LegendLine | null;
  onClose: () => void;
  onCount: (line: LegendLine, drills: number, spread: number) => void;
}) {
  const threads = useThreads();
  const [line, setLine] = useState(first ?? legend[0]!);
  const [photo, setPhoto] = useState<string | null>(null);
  const [found, setFound] = useState<LooseCount | null>(null);
  const { busy, fault, setFault, work } = useWork();
  const [done, setDone] = useState<string | null>(null);
  useEffect(() => () => void (photo && URL.revokeObjectURL(photo)), [photo]);
  const look = async (picture: Blob) => {
    setDone(null);
    const url = URL.createObjectURL(picture);
    setPhoto(url);
    setFound(null);
    const { loose } = await threads.ask<'loose'>({ what: 'loose', photo: url, shape: canvas.shape });
    setFound(loose);
  };
  const choose = (file: File) => {
    const unfit = faultInPhoto(file);
    if (unfit) return setFault(unfit);
    void work('Counting…', () => look(file));
  };
  const simulate = () =>
    work('Counting…', async () => {
      const random = seededRandom(Date.now() % 2 ** 31);
      const drill = hexToRgb(line.hex ?? UNKNOWN_COLOUR);
      const isLight = drill[0] + drill[1] + drill[2] > 380;
      const shot = {
        shape: canvas.shape,
        drills: 120 + Math.floor(random.uniform() * 120),
        touching: 0.4,
        drill,
        tray: isLight ? TRAYS.dark : TRAYS.light,
        seed: Math.floor(random.uniform() * 1e9),
      };
      await look((await threads.ask<'tray'>({ what: 'tray', shot })).picture);
    });
  const give = found && Math.ceil(expanded([{ spread: found.spread, shared: [] }]));
  return (
    <Dialog title="Count loose drills on a photo" width={46} open onClose={onClose}>
      <div className="flex flex-col gap-3">
        <p>
          Shake the drills out onto a flat tray of quite another colour, in one layer, as few as possible
          touching; then photograph it straight from above. One colour at a time.
        </p>
        <div className="flex flex-wrap items-end gap-3">
          <label>
            <span className="mb-1 block font-semibold">Colour</span>
            <select
              className="field"
              value={line.line}
              onChange={({ target }) => setLine(ofLine(legend, Number(target.value)) ?? line)}
            >
              {legend.map(({ line: value, code, name }) => (
                <option key={value} value={value}>
                  {code} {name}
                </option>
              ))}
            </select>
          </label>
          <FilePicker
            words={
              <>
                <Camera size={20} aria-hidden /> Choose a photo
              </>
            }
            accept="image/jpeg,image/png,image/webp"
            disabled={busy !== null}
            onChoose={choose}
          />
          {mayBeSimulated() && (
            <button type="button" className="button" disabled={busy !== null} onClick={() => void simulate()}>
              Simulated tray
            </button>
          )}
        </div>
        {busy && <p aria-live="polite">{busy}</p>}
        {fault && <Notice kind="fault">{fault}</Notice>}
        {found && (
          <div className="flex flex-wrap items-center justify-between gap-3" aria-live="polite">
            <div>
              <p className="big-number" data-testid="tray-count">
                {counted(found.count, 'drill')}
              </p>
              <p>
                {give === 0 ? 'Each lies by itself.' : `Give or take ${many(give!)}: some touch each other.`}
              </p>
            </div>
            <Colour line={line} shape={canvas.shape} />
            <button
              type="button"
              className="button button-main"
              disabled={found.unsure !== null}
              onClick={() => {
                onCount(line, found.count, found.spread);
                setDone(`${counted(found.count, 'drill')} of ${line.code} counted.`);
                setFound(null);
                setPhoto(null);
              }}
            >
              Count them for {line.code}
            </button>
          </div>
        )}
        {found?.unsure && <Notice kind="fault">{found.unsure}</Notice>}
        {done && <p role="status">{done}</p>}
        {photo && <TrayPicture url={photo} found={found} />}
      </div>
    </Dialog>
  );
}

/** The photo with a dot on each drill, and a number on heaps of touching ones. */
function TrayPicture({ url, found }: { url: string; found: LooseCount | null }) {
  const [size, setSize] = useState<{ width: number; height: number } | null>(null);
  return (
    <div className="relative">
      <img
        src={url}
        alt="The tray"
        className="block w-full"
        onLoad={({ currentTarget }) =>
          setSize({ width: currentTarget.naturalWidth, height: currentTarget.naturalHeight })
        }
      />
      {size && found && (
        <svg
          className="pointer-events-none absolute inset-0 size-full"
          viewBox={`0 0 ${size.width} ${size.height}`}
          aria-hidden
        >
          {found.heaps.map(({ x, y, drills }) => (
            <g key={`${x} ${y}`}>
              <circle
                cx={x}
                cy={y}
                r={size.width / (drills === 1 ? 200 : 90)}
                fill="#fff8f2"
                stroke="#6a2346"
                strokeWidth={size.width / 500}
              />
              {drills > 1 && (
                <text
                  x={x}
                  y={y + size.width / 150}
                  textAnchor="middle"
                  fontSize={size.width / 50}
                  fill="#251f18"
                  fontFamily="var(--font-mono)"
                >
                  {drills}
                </text>
              )}
            </g>
          ))}
        </svg>
      )}
    </div>
  );
}
