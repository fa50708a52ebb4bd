import { StationNav } from '../../ui/StationNav';

const PLACES = [
  ['', 'Count the bags'],
  ['/sheet', 'Colour list'],
  ['/request', 'Missing drills'],
  ['/inspection', 'Inspection'],
  ['/facts', 'Title and size'],
] as const;

/** The corners of the check-in station. */
export function CheckinNav({
  canvasId,
  here,
}: {
  canvasId: string;
  here: (typeof PLACES)[number][0] | '/packing';
}) {
  return <StationNav label="Check-in" base={`/canvas/${canvasId}/checkin`} places={PLACES} here={here} />;
}
