import { useState } from 'react'
import { Link, Navigate } from 'react-router'
import type { AccountView } from '#contract/views/account.ts'
import type { Problem } from '#contract/views/problem.ts'
import { useAccountQuery, useChangePasswordMutation, useConfirmAddressMutation } from '../../api/account.ts'
import { useSessionQuery } from '../../api/api.ts'
import { CodeField } from '../../ui/CodeField.tsx'
import { NewPasswordField } from '../../ui/NewPasswordField.tsx'
import { onSubmit } from '../../ui/on-submit.ts'
import { ProblemNote } from '../../ui/ProblemNote.tsx'
import { TextField } from '../../ui/TextField.tsx'
import { Dates } from './Dates.tsx'
import { TwoStep } from './TwoStep.tsx'
import { SignIns } from './SignIns.tsx'

/** What belongs to one's account, in whichever workspaces one is. */
export function AccountScreen() {
  const { data: session } = useSessionQuery()
  const { data: account } = useAccountQuery(undefined, { skip: session?.account == null })
  if (session !== undefined && session.account === null)
    return <Navigate to="/sign-in" state={{ then: '/account' }} replace />
  if (account === undefined) return null
  return (
    <main className="mx-auto max-w-4xl px-6 py-8">
      <p className="mb-6 flex items-center justify-between border-b border-base-content pb-3">
        <span className="flex items-center gap-2 font-bold">
          <img src="/mark.svg" alt="" width={20} height={20} /> Noskel
        </span>
        <Link className="link text-sm" to="/workspaces">
          Your workspaces
        </Link>
      </p>
      <h1 className="mb-1 text-2xl font-bold">Your account</h1>
      <p className="quiet mb-6">{account.mail}. Only you can change this, nobody who runs a workspace can.</p>
      <div className="grid items-start gap-x-10 gap-y-8 md:grid-cols-2">
        <div className="grid gap-8">
          <Address account={account} />
          <Password account={account} />
        </div>
        <div className="grid gap-8">
          <Dates account={account} />
          <TwoStep account={account} />
        </div>
      </div>
      <SignIns account={account} />
    </main>
  )
}

function Address({ account }: { readonly account: AccountView }) {
  const [send, { isSuccess, error, isLoading }] = useConfirmAddressMutation()
  return (
    <section aria-label="Address">
      <h2 className="mb-2 border-b border-base-300 pb-1 font-bold">Address</h2>
      {account.isProven ? (
        <p>{account.mail} is confirmed.</p>
      ) : (
        <>
          <p className="mb-2 text-warning">
            You joined by a link that was not sent by mail. The address {account.mail} is not confirmed yet.
          </p>
          <button type="button" className="btn-plain" disabled={isLoading} onClick={() => void send()}>
            Send mail to confirm it
          </button>
          {isSuccess && <p role="status">The mail was sent.</p>}
          <ProblemNote problem={error as Problem | undefined} />
        </>
      )}
    </section>
  )
}

function Password({ account }: { readonly account: AccountView }) {
  const [code, setCode] = useState('')
  const [password, setPassword] = useState('')
  const [next, setNext] = useState('')
  const [change, { error, isLoading, isSuccess }] = useChangePasswordMutation()
  const submit = async () => {
    const { error } = await change({ password, next, ...(account.twoStep === null ? {} : { code }) })
    if (error !== undefined) return
    setPassword('')
    setNext('')
    setCode('')
  }
  return (
    <section aria-label="Password">
      <h2 className="mb-2 border-b border-base-300 pb-1 font-bold">Password</h2>
      <form className="grid gap-3" onSubmit={onSubmit(submit)}>
        <TextField
          label="Present password"
          type="password"
          autoComplete="current-password"
          required
          value={password}
          onValue={setPassword}
        />
        {account.twoStep !== null && <CodeField code={code} onCode={setCode} />}
        <NewPasswordField
          label="New password"
          of={{ mail: account.mail, words: [account.name] }}
          note="This signs you out on all other devices."
          value={next}
          onValue={setNext}
        />
        <ProblemNote problem={error as Problem | undefined} />
        {isSuccess && <p role="status">Your password is changed. You are signed out on all other devices.</p>}
        <button className="btn-plain justify-self-start" disabled={isLoading}>
          Change password
        </button>
      </form>
    </section>
  )
}
