import type { Result } from '@/core/issue.ts';
import type { PeopleAnswer, PeopleRequest } from '@/server/process/accounts.ts';
import { posted } from '../../send.ts';

/** Lets somebody in, changes what they may do, or lets them in no more. */
export function sendPeople(request: PeopleRequest): Promise<Result<PeopleAnswer>> {
  return posted('/api/people', request);
}
