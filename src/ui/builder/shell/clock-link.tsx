'use client';

import Link from 'next/link';
import type { ReactNode } from 'react';
import { useClockParameters } from './use-clock.ts';

/** A link to another screen that keeps the clock where it stands. */
export function ClockLink({
  href,
  children,
  className,
  current,
}: {
  href: string;
  children: ReactNode;
  className?: string;
  current?: boolean;
}) {
  const { keep } = useClockParameters();
  return (
    <Link
      href={keep(href)}
      prefetch={false}
      className={className}
      {...(current ? { 'aria-current': 'page' as const } : {})}
    >
      {children}
    </Link>
  );
}
