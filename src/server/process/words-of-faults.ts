import type { Issue } from '@/core/issue.ts';
import { problemOf } from '../db/connection.ts';
import { DatabaseProblem } from '../db/problem.ts';
import { NotPermitted } from '../permit.ts';

/** Why a write failed, for whoever asked for it; faults of the program go to the log. */
export function inWords(error: unknown, database: string): Pick<Issue, 'message' | 'fix'> {
  const problem = problemOf(error, database);
  if (problem instanceof DatabaseProblem) return { message: problem.message, fix: problem.fix };
  if (problem instanceof NotPermitted)
    return {
      message: problem.message,
      fix: 'Sign in as somebody who may, or ask a builder of the site.',
    };
  console.error(problem);
  return {
    message: 'This change failed because of a fault in the program; nothing was changed.',
    fix: 'The server’s log has the details. Your words are still in the form.',
  };
}
