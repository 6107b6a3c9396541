import type { Problem } from '#contract/views/problem.ts'
import { ProblemNote } from '../../../ui/ProblemNote.tsx'

/** A question that one may not be told the answer of, or about what is not there: both alike. */
export const NotTold = ({ problem }: { readonly problem: Problem }) => (
  <div className="max-w-xl">
    <ProblemNote problem={problem} />
    <p className="quiet mt-2 text-sm">
      You can check places that you share. With the privilege “check access” you can check all others too.
    </p>
  </div>
)
