import type { DndContextProps } from '@dnd-kit/core';

const nothing = (): undefined => undefined;

/** What is dragged is not read out: the keys that move it are, with what came of it. */
export const SILENT: NonNullable<DndContextProps['accessibility']> = {
  announcements: {
    onDragStart: nothing,
    onDragOver: nothing,
    onDragEnd: nothing,
    onDragCancel: nothing,
  },
};
