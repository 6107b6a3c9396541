import type { ServerProblem } from '#contract/problem.ts'
import type { Problem } from '#contract/views/problem.ts'
import { problemType, serverProblems } from '#contract/problem.ts'

/** Thrown where a request cannot go on; the last handler turns it into its reply. */
export class ProblemError extends Error {
  readonly problem: Problem

  constructor(problem: Problem) {
    super(problem.title)
    this.problem = problem
  }
}

export function problemOf(
  code: ServerProblem,
  more: Pick<Problem, 'faults' | 'preview' | 'meanwhile' | 'conflicts' | 'cells' | 'refused'> = {},
): ProblemError {
  const { status, title, detail } = serverProblems[code]
  return new ProblemError({ type: problemType(code), title, status, detail, ...more })
}
