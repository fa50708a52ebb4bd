import { StationNav } from '../../ui/StationNav';

const PLACES = [
  ['', 'The heap'],
  ['/sheet', 'Colour list'],
  ['/request', 'Ask and cover'],
  ['/inspection', 'The canvas'],
  ['/facts', 'Title and size'],
  ['/packing', 'Packing list'],
] as const;

/** The corners of the check-in station. */
export function CheckinNav({ canvasId, here }: { canvasId: string; here: (typeof PLACES)[number][0] }) {
  return <StationNav label="Check-in" base={`/canvas/${canvasId}/checkin`} places={PLACES} here={here} />;
}
