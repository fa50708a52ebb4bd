import { type KeyboardEvent, type PointerEvent, useEffect, useRef, useState } from 'react';
import { DRAWING_SIDE, inkOfPicture } from '../../core/symbols/trace';
import { FilePicker } from '../../ui/FilePicker';
import { isPressed } from '../../ui/pressed';

/** Side of the view in CSS pixels. */
const VIEW = 320;

/** A square is cut out of a picture; what is in it becomes ink. Dragged, or moved by arrow keys. */
export function PictureCrop({
  onInk,
  onFault,
}: {
  onInk: (ink: Float32Array) => void;
  onFault: (fault: string | null) => void;
}) {
  const view = useRef<HTMLCanvasElement>(null);
  const [picture, setPicture] = useState<ImageBitmap | null>(null);
  const [crop, setCrop] = useState({ x: VIEW / 2, y: VIEW / 2, side: VIEW / 2 });
  const dragging = useRef(false);

  const open = async (file: File) => {
    onFault(null);
    try {
      setPicture(await createImageBitmap(file));
    } catch {
      onFault(`${file.name} is not a picture that can be opened here. Use PNG, JPEG or WebP.`);
    }
  };
  useEffect(() => {
    const context = view.current?.getContext('2d');
    if (!context || !picture) return;
    const scale = Math.min(VIEW / picture.width, VIEW / picture.height);
    const [width, height] = [picture.width * scale, picture.height * scale];
    context.clearRect(0, 0, VIEW, VIEW);
    context.drawImage(picture, (VIEW - width) / 2, (VIEW - height) / 2, width, height);
    onInk(inkOfPicture(greyIn(picture, crop, scale)));
    context.strokeStyle = '#fff';
    context.lineWidth = 4;
    context.strokeRect(crop.x - crop.side / 2, crop.y - crop.side / 2, crop.side, crop.side);
    context.strokeStyle = '#6a2346';
    context.lineWidth = 2;
    context.strokeRect(crop.x - crop.side / 2, crop.y - crop.side / 2, crop.side, crop.side);
  }, [picture, crop, onInk]);

  const moveTo = (event: PointerEvent<HTMLCanvasElement>) => {
    const box = event.currentTarget.getBoundingClientRect();
    setCrop({
      ...crop,
      x: ((event.clientX - box.left) * VIEW) / box.width,
      y: ((event.clientY - box.top) * VIEW) / box.height,
    });
  };
  const onKey = (event: KeyboardEvent) => {
    const step = event.shiftKey ? 10 : 2;
    const next = { ...crop };
    if (event.key === 'ArrowLeft') next.x -= step;
    else if (event.key === 'ArrowRight') next.x += step;
    else if (event.key === 'ArrowUp') next.y -= step;
    else if (event.key === 'ArrowDown') next.y += step;
    else return;
    event.preventDefault();
    setCrop(next);
  };
  return (
    <div className="flex flex-col gap-3">
      <FilePicker
        words="Picture with the symbol"
        accept="image/png,image/jpeg,image/webp"
        onChoose={(file) => void open(file)}
      />
      {/* biome-ignore lint/a11y/noInteractiveElementToNoninteractiveRole: the picture takes arrow keys itself, which is what this role means */}
      <canvas
        ref={view}
        width={VIEW}
        height={VIEW}
        tabIndex={0}
        role="application"
        aria-label="The picture. Drag the square onto the symbol, or move it with the arrow keys."
        className="max-w-full touch-none border-[1.5px] border-edge bg-white"
        onPointerDown={(event) => {
          event.currentTarget.setPointerCapture(event.pointerId);
          dragging.current = true;
          moveTo(event);
        }}
        onPointerMove={(event) => {
          if (!dragging.current) return;
          if (isPressed(event)) moveTo(event);
          else event.currentTarget.releasePointerCapture(event.pointerId);
        }}
        onLostPointerCapture={() => {
          dragging.current = false;
        }}
        onKeyDown={onKey}
      />
      <label className="block">
        <span className="mb-1 block">Size of the square</span>
        <input
          type="range"
          min={16}
          max={VIEW}
          value={crop.side}
          className="h-11 w-full accent-accent"
          onChange={(event) => setCrop({ ...crop, side: Number(event.target.value) })}
        />
      </label>
    </div>
  );
}

/** Lightness of the cut-out, brought to the raster that is traced; outside the picture lies white. */
function greyIn(picture: ImageBitmap, crop: { x: number; y: number; side: number }, scale: number): number[] {
  const small = document.createElement('canvas');
  small.width = DRAWING_SIDE;
  small.height = DRAWING_SIDE;
  const context = small.getContext('2d')!;
  context.fillStyle = '#fff';
  context.fillRect(0, 0, DRAWING_SIDE, DRAWING_SIDE);
  const left = (crop.x - crop.side / 2 - (VIEW - picture.width * scale) / 2) / scale;
  const top = (crop.y - crop.side / 2 - (VIEW - picture.height * scale) / 2) / scale;
  const zoom = (DRAWING_SIDE * scale) / crop.side;
  context.drawImage(picture, -left * zoom, -top * zoom, picture.width * zoom, picture.height * zoom);
  const { data } = context.getImageData(0, 0, DRAWING_SIDE, DRAWING_SIDE);
  return Array.from(
    { length: DRAWING_SIDE ** 2 },
    (_, i) => 0.2126 * data[i * 4]! + 0.7152 * data[i * 4 + 1]! + 0.0722 * data[i * 4 + 2]!,
  );
}
