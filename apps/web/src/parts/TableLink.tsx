import type { ReactNode } from 'react';

/** A list as a file that a sheet opens. */
export const TableLink = ({ href, children }: { href: string; children: ReactNode }) => (
  <a className="text-action no-print inline-flex min-h-11 items-center" href={href} download>
    {children}
  </a>
);
