import { StationNav } from '../../ui/StationNav';
import { ChartNav } from '../chart/ChartNav';

const PLACES = [
  ['', 'Photos'],
  ['/colours', 'Colours in print'],
  ['/check', 'Check what was read'],
] as const;

/** The steps from photos to a chart, below the corners of the chart station. */
export function ReadingNav({ canvasId, here }: { canvasId: string; here: (typeof PLACES)[number][0] }) {
  return (
    <>
      <ChartNav canvasId={canvasId} here="/photos" />
      <StationNav label="From photos" base={`/canvas/${canvasId}/chart/photos`} places={PLACES} here={here} />
    </>
  );
}
