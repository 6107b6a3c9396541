import { Link, useParams } from 'react-router'
import type { Problem } from '#contract/views/problem.ts'

/** What was refused, why, and what would work. Announced at once. */
export function ProblemNote({ problem }: { readonly problem: Problem | undefined }) {
  const { slug } = useParams()
  if (problem === undefined) return null
  return (
    <div role="alert" className="border-l-4 border-error bg-base-200 px-3 py-2">
      <p className="font-semibold">{problem.title}</p>
      <p className="quiet text-sm">{problem.detail}</p>
      {problem.lacks !== undefined && slug !== undefined && (
        <Link
          className="link text-sm"
          to={`/at/${slug}/roles/requests?privilege=${encodeURIComponent(problem.lacks)}`}
        >
          Request it
        </Link>
      )}
      {problem.asks !== undefined && slug !== undefined && (
        <Link
          className="link text-sm"
          to={`/at/${slug}/content/${problem.asks.place}?ask=${problem.asks.level}`}
        >
          Request {problem.asks.level}
        </Link>
      )}
      {problem.asks !== undefined && slug !== undefined && (
        <Link
          className="link ml-4 text-sm"
          to={`/at/${slug}/oversight/check?ask=whynot&person=me&place=${problem.asks.place}&action=${problem.asks.action}`}
        >
          Why not?
        </Link>
      )}
      {problem.meanwhile !== undefined && (
        <>
          <p className="mt-1 text-sm font-semibold">In the meantime</p>
          <ul className="text-sm">
            {problem.meanwhile.map(each => (
              <li key={each}>{each}</li>
            ))}
          </ul>
        </>
      )}
      {problem.faults !== undefined && (
        <ul className="mt-1 list-disc pl-5 text-sm">
          {problem.faults.map(fault => (
            <li key={fault.at + fault.message}>{fault.message}</li>
          ))}
        </ul>
      )}
    </div>
  )
}
