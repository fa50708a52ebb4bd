import { StationNav } from '../../ui/StationNav';

const PLACES = [
  ['', 'The picture'],
  ['/kind', 'What it is like'],
  ['/repair', 'Repair and typing'],
  ['/panels', 'Panels'],
  ['/photos', 'From photos'],
  ['/read', 'Files in and out'],
] as const;

/** The corners of the chart station. */
export function ChartNav({ canvasId, here }: { canvasId: string; here: (typeof PLACES)[number][0] }) {
  return <StationNav label="Chart" base={`/canvas/${canvasId}/chart`} places={PLACES} here={here} />;
}
