'use client';

import { Dialog as Radix } from 'radix-ui';
import { type ReactNode, useRef } from 'react';

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
  const focusBack = useFocusBack();
  return (
    <Radix.Root open={open} onOpenChange={onOpenChange}>
      <Radix.Portal>
        <Radix.Overlay className="fixed inset-0 z-20 bg-ink/30" />
        <Radix.Content
          {...focusBack}
          aria-describedby={undefined}
          className="fixed top-[8vh] left-1/2 z-30 max-h-[88vh] w-[560px] overflow-y-auto max-w-[92vw] -translate-x-1/2 rounded-md border border-edge bg-white p-6"
        >
          <Radix.Title className="text-section font-semibold">{title}</Radix.Title>
          {children}
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  );
}

/** Something alone on the screen, until it is closed. */
export function FullDialog({
  open,
  onOpenChange,
  title,
  actions,
  children,
}: {
  open: boolean;
  onOpenChange: (open: boolean) => void;
  title: string;
  actions: ReactNode;
  children: ReactNode;
}) {
  const focusBack = useFocusBack();
  return (
    <Radix.Root open={open} onOpenChange={onOpenChange}>
      <Radix.Portal>
        <Radix.Content
          {...focusBack}
          aria-describedby={undefined}
          className="fixed inset-0 z-30 flex flex-col bg-white"
        >
          <div className="flex h-10 shrink-0 items-center gap-4 border-b border-rule px-6">
            <Radix.Title className="min-w-0 flex-1 truncate font-semibold">{title}</Radix.Title>
            {actions}
            <Radix.Close className="button-quiet h-8">Back</Radix.Close>
          </div>
          {children}
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  );
}

/** When it closes, the focus goes back to where it was. */
function useFocusBack() {
  const from = useRef<Element | null>(null);
  return {
    onOpenAutoFocus: () => {
      from.current = document.activeElement;
    },
    onCloseAutoFocus: (event: Event) => {
      event.preventDefault();
      if (from.current instanceof HTMLElement) from.current.focus();
    },
  };
}
