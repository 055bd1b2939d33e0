'use client';

import { type ComponentType, createContext, useContext } from 'react';
import type { ControlProps } from './definition.ts';

/** What draws the control of a field that stands within another value. */
const Inner = createContext<ComponentType<ControlProps>>(() => null);

/** Says what draws the controls of fields within the values below. */
export const InnerControls = Inner.Provider;

/** The control of any field, for values that hold further fields. */
export function useInnerControl(): ComponentType<ControlProps> {
  return useContext(Inner);
}
