import { Toolbar } from 'radix-ui';
import type { ReactNode } from 'react';

/** A button of a toolbar: keeps the selection when pressed with the mouse, and works by key. */
export function ToolButton({
  pressed,
  disabled = false,
  onPress,
  children,
}: {
  pressed?: boolean | undefined;
  disabled?: boolean;
  onPress: () => void;
  children: ReactNode;
}) {
  return (
    <Toolbar.Button
      type="button"
      aria-pressed={pressed}
      disabled={disabled}
      className="h-7 px-2 hover:bg-hover disabled:text-muted aria-pressed:font-semibold aria-pressed:text-spruce"
      onMouseDown={(e) => e.preventDefault()}
      onClick={onPress}
    >
      {children}
    </Toolbar.Button>
  );
}
