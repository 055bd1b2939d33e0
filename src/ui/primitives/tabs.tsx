'use client';

import { Tabs as Radix } from 'radix-ui';
import type { ReactNode } from 'react';

/** Views of one thing, one at a time. */
export function Tabs({
  tabs,
  label,
  value,
  onChange,
}: {
  tabs: { key: string; label: string; content: ReactNode }[];
  label: string;
  value?: string;
  onChange?: (key: string) => void;
}) {
  const choice = value === undefined ? { defaultValue: tabs[0]?.key ?? '' } : { value };
  return (
    <Radix.Root
      {...choice}
      {...(onChange ? { onValueChange: onChange } : {})}
      className="flex min-h-0 flex-1 flex-col"
    >
      <Radix.List aria-label={label} className="flex gap-2 border-b border-rule px-5">
        {tabs.map((tab) => (
          <Radix.Trigger
            key={tab.key}
            value={tab.key}
            className="-mb-px h-9 border-b-2 px-1 -outline-offset-2 border-transparent text-muted data-[state=active]:border-spruce data-[state=active]:font-semibold data-[state=active]:text-ink"
          >
            {tab.label}
          </Radix.Trigger>
        ))}
      </Radix.List>
      {tabs.map((tab) => (
        <Radix.Content
          key={tab.key}
          value={tab.key}
          className="min-h-0 flex-1 overflow-auto data-[state=inactive]:hidden"
        >
          {tab.content}
        </Radix.Content>
      ))}
    </Radix.Root>
  );
}
