import type { ReactNode } from 'react';

/** Keeps the selection when pressed with the mouse, and works by key. */
export function ToolButton({
  pressed,
  expanded,
  disabled,
  onPress,
  children,
}: {
  pressed?: boolean | undefined;
  expanded?: boolean | undefined;
  disabled?: boolean;
  onPress: () => void;
  children: ReactNode;
}) {
  return (
    <button
      type="button"
      aria-pressed={pressed}
      aria-expanded={expanded}
      disabled={disabled}
      className="h-7 px-2 hover:bg-hover disabled:text-muted aria-pressed:font-semibold aria-pressed:text-spruce"
      onMouseDown={(e) => e.preventDefault()}
      onClick={onPress}
    >
      {children}
    </button>
  );
}
