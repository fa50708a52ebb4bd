import { useEffect, useRef, useState } from 'react';
import type { BagsCarry, Canvas } from '../../core/canvas/canvas';
import type { LegendLine } from '../../core/canvas/legend';
import { readScanned, type Scanned } from '../../core/codes/scanned';
import { colourAddress } from '../../core/labels/qr';
import { Chip } from '../../ui/Chip';
import { Dialog, type DialogHandle } from '../../ui/Dialog';
import { ScanLine } from '../../ui/icons';
import { Notice } from '../../ui/Notice';
import { mayBeSimulated } from '../../ui/standIns';
import { TOO_SOON_MS } from '../../ui/useTooSoon';
import { standInCamera } from './standInCamera';
import { type CodeSource, useCodeReader } from './useCodeReader';

interface ScanProps {
  canvas: Canvas;
  legend: LegendLine[];
  bagsCarry: BagsCarry | null;
  /** What is done with a colour that was read, such as “Count one bag”. */
  act: string;
  /** @param stays whether the camera goes on, so that bag after bag can be read */
  onColour: (line: LegendLine) => void;
  stays?: boolean;
  /** What is read off something that is no colour of the kit; without, it is only told. */
  onText?: (text: string) => void;
}

/** Reads the QR code of a label or the barcode of a bag with the camera. Nothing is done before it was seen and agreed to. */
export function ScanButton(props: ScanProps) {
  const dialog: DialogHandle = useRef<HTMLDialogElement>(null);
  const [open, setOpen] = useState(false);
  return (
    <>
      <button
        type="button"
        className="button !px-2.5"
        aria-label="Read a code with the camera"
        title="Read a code with the camera"
        onClick={() => {
          setOpen(true);
          dialog.current?.showModal();
        }}
      >
        <ScanLine size={20} aria-hidden />
      </button>
      <Dialog
        title="Hold a label or a bag before the camera"
        width={34}
        handle={dialog}
        onClose={() => setOpen(false)}
      >
        {open && <Scanner {...props} onDone={() => dialog.current?.close()} />}
      </Dialog>
    </>
  );
}

function Scanner({
  canvas,
  legend,
  bagsCarry,
  act,
  onColour,
  stays = false,
  onText,
  onDone,
}: ScanProps & { onDone: () => void }) {
  const [source, setSource] = useState<CodeSource | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const [scanned, setScanned] = useState<Scanned | null>(null);
  const [simulated, setSimulated] = useState(false);
  const [done, setDone] = useState('');
  const video = useRef<HTMLVideoElement>(null);
  const painted = useRef<HTMLCanvasElement>(null);
  const standIn = mayBeSimulated();
  /** When one code took the place of another: a finger on its way is meant for the one before. */
  const replaced = useRef(Number.NEGATIVE_INFINITY);
  const { looking, failed } = useCodeReader(source, (text) => {
    navigator.vibrate?.(60);
    if (scanned) replaced.current = performance.now();
    setDone('');
    setScanned(readScanned(text, canvas.id, legend, bagsCarry));
  });
  useEffect(() => {
    let stream: MediaStream | null = null;
    let left = false;
    const begin = async () => {
      if (!navigator.mediaDevices) throw new DOMException('', 'InsecureContext');
      stream = await navigator.mediaDevices.getUserMedia({
        video: { facingMode: 'environment', width: { ideal: 1280 } },
      });
      const screen = video.current;
      if (left || !screen) {
        for (const track of stream.getTracks()) track.stop();
        return;
      }
      screen.srcObject = stream;
      await screen.play();
      setSource(cameraSource(screen));
    };
    begin().catch((error: unknown) => !left && setFault(cameraFault(error)));
    return () => {
      left = true;
      for (const track of stream?.getTracks() ?? []) track.stop();
    };
  }, []);
  const simulate = () => {
    const line = legend[Math.floor(Math.random() * legend.length)];
    if (!line) return;
    const camera = standInCamera(colourAddress('https://oculent.local', canvas.id, line.line));
    setFault(null);
    setScanned(null);
    setSimulated(true);
    setSource(camera);
    requestAnimationFrame(() => painted.current && camera.paint(painted.current));
  };
  const take = (line: LegendLine) => {
    if (performance.now() - replaced.current < TOO_SOON_MS) return;
    onColour(line);
    if (!stays) {
      onDone();
      return;
    }
    setScanned(null);
    setDone(`${line.code}: done. The next one, please.`);
  };
  return (
    <div className="flex flex-col gap-3">
      <video
        ref={video}
        className={`w-full bg-black ${fault || simulated ? 'hidden' : ''}`}
        playsInline
        muted
      />
      {simulated && <canvas ref={painted} className="w-full" />}
      {fault && <Notice kind="fault">{fault}</Notice>}
      {failed && <Notice kind="fault">Codes cannot be read here now. Load the page again.</Notice>}
      <div aria-live="polite" className="min-h-16">
        {scanned ? (
          <ScannedSlip
            scanned={scanned}
            canvas={canvas}
            act={act}
            onTake={take}
            onText={onText}
            onDone={onDone}
          />
        ) : (
          <p className="text-faded">
            {done || (fault || failed ? '' : looking ? 'Looking…' : 'Starting the camera…')}
          </p>
        )}
      </div>
      {standIn && (
        <button type="button" className="button self-start" onClick={simulate}>
          Simulated camera
        </button>
      )}
    </div>
  );
}

function ScannedSlip({
  scanned,
  canvas,
  act,
  onTake,
  onText,
  onDone,
}: {
  scanned: Scanned;
  canvas: Canvas;
  act: string;
  onTake: (line: LegendLine) => void;
  onText: ((text: string) => void) | undefined;
  onDone: () => void;
}) {
  if (scanned.kind === 'other canvas') {
    return <p className="font-semibold text-alarm">This label is of another canvas.</p>;
  }
  if (scanned.kind === 'unknown') {
    return (
      <div className="flex flex-wrap items-center gap-3">
        <p>
          Read: <strong className="number break-all">{scanned.text}</strong>, which is no colour of this kit.
        </p>
        {onText && (
          <button
            type="button"
            className="button"
            onClick={() => {
              onText(scanned.text);
              onDone();
            }}
          >
            Put it into the field
          </button>
        )}
      </div>
    );
  }
  const lines = scanned.kind === 'colour' ? [scanned.line] : scanned.lines;
  return (
    <div className="flex flex-col gap-2">
      {scanned.kind === 'several' && <p>“{scanned.text}” fits more than one colour.</p>}
      {lines.map((line) => (
        <div key={line.line} className="flex flex-wrap items-center gap-3">
          <Chip line={line} shape={canvas.shape} size={44} />
          <p className="min-w-0 grow">
            <strong translate="no" className="number text-xl">
              {line.code}
            </strong>{' '}
            <span dir="auto">{line.name}</span>
          </p>
          <button type="button" className="button button-main" onClick={() => onTake(line)}>
            {act}
          </button>
        </div>
      ))}
    </div>
  );
}

function cameraSource(video: HTMLVideoElement): CodeSource {
  return {
    draw: (context, longest) => {
      const { videoWidth, videoHeight } = video;
      if (videoWidth === 0) return null;
      const scale = Math.min(1, longest / Math.max(videoWidth, videoHeight));
      const size = { width: Math.round(videoWidth * scale), height: Math.round(videoHeight * scale) };
      Object.assign(context.canvas, size);
      context.drawImage(video, 0, 0, size.width, size.height);
      return size;
    },
  };
}

function cameraFault(error: unknown): string {
  const name = error instanceof DOMException ? error.name : '';
  if (name === 'InsecureContext') {
    return 'The camera works only where this device trusts Oculent: see Other devices, “When the device warns of this address”.';
  }
  if (name === 'NotAllowedError') {
    return 'The browser was not allowed to use the camera. Allow it in the browser’s settings for this address, then try again.';
  }
  if (name === 'NotFoundError' || name === 'OverconstrainedError')
    return 'This device has no camera that can be used.';
  return 'The camera does not start. Another program may be using it.';
}
