const PLACES = [
  ['', 'The heap'],
  ['/sheet', 'The sheet'],
  ['/request', 'Ask and cover'],
  ['/inspection', 'The cloth'],
  ['/packing', 'Packing list'],
] as const;

/** The corners of the check-in station. */
export function CheckinNav({ canvasId, here }: { canvasId: string; here: (typeof PLACES)[number][0] }) {
  return (
    <nav aria-label="Check-in" className="flex flex-wrap gap-x-4">
      {PLACES.map(([path, words]) => (
        <a
          key={path}
          href={`/canvas/${canvasId}/checkin${path}`}
          aria-current={path === here ? 'page' : undefined}
          className="flex min-h-11 items-center underline-offset-4 hover:text-accent aria-[current=page]:font-semibold aria-[current=page]:text-accent [&:not([aria-current])]:underline"
        >
          {words}
        </a>
      ))}
    </nav>
  );
}
