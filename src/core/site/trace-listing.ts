import type { Validity } from '../time/interval.ts';
import type { CompiledSite } from './compile.ts';
import type { SiteReader } from './reader.ts';
import type { Resolution, TraceStep } from './resolve.ts';
import { type Parameter, visitAt } from './visits.ts';

/** Where the steps of a request are looked up, and until when they hold. */
interface World {
  site: CompiledSite;
  reader: SiteReader;
  validity: Validity;
}

/**
 * What a path alone does not say of its page: which parameters are read there, and that a list ends
 * before it. None of these decides which page it is.
 */
export function stepsBeyond(
  world: World,
  { path, parameters = [] }: { path: string; parameters?: readonly Parameter[] },
  { kind }: Resolution,
  status: number,
): TraceStep[] {
  const steps: TraceStep[] = [];
  const say = (step: TraceStep['step'], words: string): void =>
    void steps.push({ step, matched: false, words });
  const isList = kind === 'listing';
  if (parameters.length > 0) say('parameters', parameterWords(world, path, parameters, isList));
  if (isList && status === 404) say('page', 'The list ends before that page.');
  return steps;
}

function parameterWords(
  world: World,
  path: string,
  parameters: readonly Parameter[],
  isList: boolean,
): string {
  const readOf = (some: readonly Parameter[]): string =>
    isList ? visitAt(world, path, some).query : '';
  const read = [...new URLSearchParams(readOf(parameters))];
  if (read.length === 0)
    return 'What stands behind “?” is passed over: nothing on this page reads it.';
  // Each by itself: a value that is there no more may stand beside one that is.
  const over = parameters.filter((one) => readOf([one]) === '');
  return `The list is narrowed, searched or ordered by ${inWords(read)}.${
    over.length > 0 ? ` Passed over: ${inWords(over)}.` : ''
  }`;
}

const inWords = (parameters: readonly Parameter[]): string =>
  parameters.map(([name, value]) => `${name}=${value}`).join(', ');
