'use client';

import { createContext, useContext } from 'react';
import type { TextOffer } from '@/server/queries/text-offer.ts';
import type { ControlProps } from '../controls/definition.ts';

/** What parts and entries within a text are drawn and edited with. */
export type TextWorld = Pick<ControlProps, 'zone' | 'now' | 'entry' | 'readOnly'> & {
  text: TextOffer;
  /** Names of the entries in the text, by id, those found meanwhile included. */
  names: Record<string, string>;
};

const World = createContext<TextWorld | null>(null);

/** Says what the text below is edited with. */
export const TextWorldProvider = World.Provider;

/** What the text around is edited with. @throws where there is none */
export function useTextWorld(): TextWorld {
  const world = useContext(World);
  if (!world) throw new Error('This stands in a text only.');
  return world;
}
