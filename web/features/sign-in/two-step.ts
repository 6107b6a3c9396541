import { problemType } from '#contract/problem.ts'

/** Whether a refusal only says that a code is needed besides the password. */
export const asksForCode = (error: unknown): boolean =>
  (error as { type?: string } | undefined)?.type === problemType('two-step')
