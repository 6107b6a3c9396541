import type { Problem } from '#contract/problem.ts'
import { ProblemNote } from '../../ui/ProblemNote.tsx'

/** A question that one may not be told the answer of, or about what is not there: both alike. */
export const NotTold = ({ problem }: { readonly problem: Problem }) => (
  <div className="max-w-xl">
    <ProblemNote problem={problem} />
    <p className="quiet mt-2 text-sm">
      One is told about places where one gives access oneself. Whoever may check anyone’s access is told about
      all others too.
    </p>
  </div>
)
