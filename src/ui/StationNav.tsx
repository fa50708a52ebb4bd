/** The corners of a station: links below its mark on the tape. */
export function StationNav({
  label,
  base,
  places,
  here,
}: {
  label: string;
  /** Address of the station. */
  base: string;
  places: readonly (readonly [path: string, words: string])[];
  here: string;
}) {
  return (
    <nav aria-label={label} className="flex flex-wrap gap-x-4 print:hidden">
      {places.map(([path, words]) => (
        <a
          key={path}
          href={`${base}${path}`}
          aria-current={path === here ? 'page' : undefined}
          className="flex min-h-11 items-center underline-offset-4 hover:text-accent aria-[current=page]:font-semibold aria-[current=page]:text-accent [&:not([aria-current])]:underline"
        >
          {words}
        </a>
      ))}
    </nav>
  );
}
