import { useState } from 'react'
import type { PersonDetailView } from '#contract/views/people.ts'
import type { Problem } from '#contract/views/problem.ts'
import { useEndTheirSignInsMutation, useSendSignInLinkMutation } from '../../../api/people.ts'
import { useHere } from '../../../api/use-here.ts'
import { Day } from '../../../ui/dates.tsx'
import { ProblemNote } from '../../../ui/ProblemNote.tsx'

/** Where somebody is signed in, and helping them to get in again. Their account stays theirs. */
export function SigningIn({ person }: { readonly person: PersonDetailView }) {
  const { slug } = useHere()
  const [send, sending] = useSendSignInLinkMutation()
  const [end, ending] = useEndTheirSignInsMutation()
  const [status, setStatus] = useState('')
  const { signIns, managed, id, mail } = person
  if (signIns === null || managed?.may.includes('reset sign-in') !== true) return null
  const perform = async (run: () => Promise<{ error?: unknown }>, done: string) => {
    const { error } = await run()
    setStatus(error === undefined ? done : '')
  }
  return (
    <section aria-label="Sign-in" className="mt-5 border-t border-base-content pt-3">
      <h3 className="mb-1 font-bold">Sign-in</h3>
      <p className="quiet mb-1 text-sm">
        {managed.hasTwoStep ? 'Two-step sign-in is set up.' : 'Two-step sign-in is not set up.'}{' '}
        {signIns.length === 0 && 'Not signed in anywhere.'}
      </p>
      <ul>
        {signIns.map(({ at, lastUsed }, index) => (
          <li key={index} className="flex justify-between border-t border-base-300 py-1">
            {at}
            {lastUsed !== null && (
              <span className="quiet">
                used <Day at={lastUsed} />
              </span>
            )}
          </li>
        ))}
      </ul>
      <div className="mt-2 flex flex-wrap gap-2">
        <button
          type="button"
          className="btn-plain"
          disabled={sending.isLoading}
          onClick={() =>
            void perform(() => send({ slug, id }), `A link to a new password was sent to ${mail}.`)
          }
        >
          Send sign-in link
        </button>
        {signIns.length > 0 && (
          <button
            type="button"
            className="btn-plain"
            disabled={ending.isLoading}
            onClick={() => void perform(() => end({ slug, id }), 'Signed out everywhere.')}
          >
            Sign out everywhere
          </button>
        )}
      </div>
      <p role="status" className="mt-1 text-sm">
        {status}
      </p>
      <ProblemNote problem={(sending.error ?? ending.error) as Problem | undefined} />
    </section>
  )
}
