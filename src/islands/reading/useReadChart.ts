import { useEffect, useMemo, useState } from 'react';
import type { Canvas } from '../../core/canvas/canvas';
import { onCanvas, type ReadChart } from '../../core/reading/review';
import type { PhotoPlace, Stitched } from '../../core/reading/stitch';
import type { ReadingPhoto, ReadingView } from '../../server/reading/contract';
import { inWords } from '../writing/api';
import { photosInUse } from './steps';
import { addressOfReading, useThreads } from './useReading';

/** What photos and answers say together, and where each square is to be seen. */
export interface ReadTogether {
  /** Photos that are read, in their order. */
  photos: ReadingPhoto[];
  /** By which people know them: their places among all that are used. */
  numbers: number[];
  stitched: Stitched | null;
  chart: ReadChart | null;
  fault: string | null;
  /** The straightened picture that a square is read from, and where it lies in it; null where no photo shows it. */
  pictureOfSquare(square: number): {
    url: string;
    x: number;
    y: number;
    photo: ReadingPhoto;
    number: number;
  } | null;
}

/** @param answers what was said of squares, those not yet acknowledged among them */
export function useReadChart(
  canvas: Canvas,
  view: ReadingView,
  answers: ReadonlyMap<number, number>,
): ReadTogether {
  const threads = useThreads();
  const all = view.photos;
  const { photos, numbers } = useMemo(() => {
    const used = photosInUse({ photos: all });
    const read = used.filter(({ reading }) => reading);
    return { photos: read, numbers: read.map((photo) => used.indexOf(photo) + 1) };
  }, [all]);
  const [stitched, setStitched] = useState<Stitched | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  // Readings change by their id; answers do not change how photos lie.
  const key = photos.map(({ id, reading, at }) => `${id} ${reading!.id} ${at?.column} ${at?.row}`).join();
  // biome-ignore lint/correctness/useExhaustiveDependencies: `key` says what of the photos counts
  useEffect(() => {
    let left = false;
    setFault(null);
    const readings = photos.map(({ reading, at }) => ({ reading: reading!, at }));
    threads.ask<'stitch'>({ what: 'stitch', readings }).then(
      ({ together }) => !left && setStitched(together),
      (error: unknown) => !left && setFault(inWords(error)),
    );
    return () => {
      left = true;
    };
  }, [key, threads]);
  const { chart, beyond } = useMemo(() => {
    if (!stitched) return { chart: null, beyond: null };
    try {
      return { chart: onCanvas(stitched, answers, canvas), beyond: null };
    } catch (error) {
      return { chart: null, beyond: inWords(error) };
    }
  }, [stitched, answers, canvas]);
  return {
    photos,
    numbers,
    stitched,
    chart,
    fault: fault ?? beyond,
    pictureOfSquare: (square) => {
      const photo = chart?.from[square] ?? -1;
      const place = stitched?.places[photo];
      if (!place) return null;
      const [x, y] = [square % canvas.width, Math.floor(square / canvas.width)];
      return {
        url: squaresUrl(canvas.id, photos[photo]!),
        ...inPhoto(place, x, y),
        photo: photos[photo]!,
        number: numbers[photo]!,
      };
    },
  };
}

const inPhoto = (place: PhotoPlace, x: number, y: number) => ({ x: x - place.column, y: y - place.row });

/** The straightened picture of a photo; anew where it was read again. */
export function squaresUrl(canvasId: string, { id, reading }: ReadingPhoto): string {
  return `${addressOfReading(canvasId)}/photos/${id}/squares.jpg?${reading?.id ?? ''}`;
}
