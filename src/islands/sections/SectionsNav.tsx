import { StationNav } from '../../ui/StationNav';

const PLACES = [
  ['', 'The sections'],
  ['/cut', 'Cut'],
  ['/cover', 'Order and cover'],
  ['/pull', 'Pull list'],
] as const;

/** The corners of the sections station. */
export function SectionsNav({ canvasId, here }: { canvasId: string; here: (typeof PLACES)[number][0] }) {
  return <StationNav label="Sections" base={`/canvas/${canvasId}/sections`} places={PLACES} here={here} />;
}
