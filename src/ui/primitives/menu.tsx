'use client';

import { DropdownMenu as Radix, Toolbar } from 'radix-ui';

/** Something a menu offers. */
export interface MenuItem {
  key: string;
  label: string;
  note?: string;
  onPick: () => void;
}

/** A button that opens a list of things to do, walked by arrow keys and letters. */
export function Menu({
  label,
  items,
  className,
  inToolbar = false,
  align = 'end',
}: {
  label: string;
  items: MenuItem[];
  className?: string;
  /** Whether its button is one of a toolbar's, walked by arrow keys. */
  inToolbar?: boolean;
  /** Which edge of the button it hangs at. */
  align?: 'start' | 'end';
}) {
  const button = <Radix.Trigger className={className ?? 'button'}>{`${label} …`}</Radix.Trigger>;
  return (
    <Radix.Root>
      {inToolbar ? <Toolbar.Button asChild>{button}</Toolbar.Button> : button}
      <Radix.Portal>
        <Radix.Content
          align={align}
          sideOffset={4}
          collisionPadding={8}
          className="z-30 max-h-[min(70vh,var(--radix-dropdown-menu-content-available-height))] w-80 overflow-auto rounded-md border border-edge bg-white py-1"
        >
          {items.map((item) => (
            <Radix.Item
              key={item.key}
              onSelect={item.onPick}
              className="cursor-pointer px-3 py-1.5 outline-none data-[highlighted]:bg-hover"
            >
              <span className="block font-medium">{item.label}</span>
              {item.note && <span className="block text-note text-muted">{item.note}</span>}
            </Radix.Item>
          ))}
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  );
}
