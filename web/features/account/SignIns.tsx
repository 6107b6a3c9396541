import type { AccountView } from '#contract/views/account.ts'
import type { Problem } from '#contract/views/problem.ts'
import { useEndOtherSignInsMutation, useEndSignInMutation } from '../../api/account.ts'
import { Day, Time } from '../../ui/dates.tsx'
import { ProblemNote } from '../../ui/ProblemNote.tsx'

/** Where one is signed in, and the way to end it. */
export function SignIns({ account: { signIns } }: { readonly account: AccountView }) {
  const [end, { error, isLoading: isEnding }] = useEndSignInMutation()
  const [endOthers, { error: othersError, isLoading: isEndingOthers }] = useEndOtherSignInsMutation()
  const isBusy = isEnding || isEndingOthers
  return (
    <section aria-label="Sign-ins" className="mt-8">
      <div className="flex items-end justify-between border-b border-base-300 pb-1">
        <h2 className="font-bold">Where you are signed in</h2>
        {signIns.length > 1 && (
          <button
            type="button"
            className="btn-inline text-sm"
            disabled={isBusy}
            onClick={() => void endOthers()}
          >
            Sign out everywhere else
          </button>
        )}
      </div>
      <table className="sheet">
        <thead>
          <tr>
            <th scope="col">At</th>
            <th scope="col">Since</th>
            <th scope="col">Last used</th>
            <th scope="col">
              <span className="sr-only">Sign out</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {signIns.map(({ id, at, since, lastUsed, isThis }) => (
            <tr key={id}>
              <td>
                {at}
                {isThis && <strong> · this device</strong>}
              </td>
              <td>{since === null ? '' : <When at={since} />}</td>
              <td>{lastUsed === null ? 'just now' : <When at={lastUsed} />}</td>
              <td className="text-right">
                {!isThis && (
                  <button
                    type="button"
                    className="btn-inline"
                    disabled={isBusy}
                    onClick={() => void end({ id })}
                  >
                    Sign out
                  </button>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <ProblemNote problem={(error ?? othersError) as Problem | undefined} />
    </section>
  )
}

const When = ({ at }: { readonly at: number }) => (
  <>
    <Day at={at} />, <Time at={at} />
  </>
)
