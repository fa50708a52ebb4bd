import { StationNav } from '../../ui/StationNav';

const PLACES = [
  ['', 'The case'],
  ['/walk', 'Bag by bag'],
  ['/labels', 'Labels'],
  ['/symbols', 'Symbols'],
] as const;

/** The corners of the kit-up station. */
export function KitupNav({ canvasId, here }: { canvasId: string; here: (typeof PLACES)[number][0] }) {
  return <StationNav label="Kit-up" base={`/canvas/${canvasId}/kitup`} places={PLACES} here={here} />;
}
