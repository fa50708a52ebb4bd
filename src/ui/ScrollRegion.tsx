import type { ReactNode } from 'react';

/** A part of the page that scrolls by itself, by keys too. */
export function ScrollRegion({
  label,
  className,
  children,
}: {
  label: string;
  className: string;
  children: ReactNode;
}) {
  return (
    // biome-ignore lint/a11y/noNoninteractiveTabindex: without it the region could not be scrolled by keyboard
    <section aria-label={label} tabIndex={0} className={`overflow-auto bg-paper ${className}`}>
      {children}
    </section>
  );
}
