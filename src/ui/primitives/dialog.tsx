'use client';

import { Dialog as Radix } from 'radix-ui';
import type { ReactNode } from 'react';

/** A question in front of the screen. */
export function Dialog({
  open,
  onOpenChange,
  title,
  children,
}: {
  open: boolean;
  onOpenChange: (open: boolean) => void;
  title: string;
  children: ReactNode;
}) {
  return (
    <Radix.Root open={open} onOpenChange={onOpenChange}>
      <Radix.Portal>
        <Radix.Overlay className="fixed inset-0 z-20 bg-ink/30" />
        <Radix.Content
          aria-describedby={undefined}
          className="fixed top-1/4 left-1/2 z-30 w-[440px] max-w-[92vw] -translate-x-1/2 rounded-md border border-edge bg-white p-6"
        >
          <Radix.Title className="text-section font-semibold">{title}</Radix.Title>
          {children}
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  );
}
