import { useState } from 'react'
import { useLocation, useNavigate } from 'react-router'
import type { Problem } from '#contract/problem.ts'
import { useSignInMutation } from '../../api/api.ts'
import { Entry } from '../../ui/Entry.tsx'
import { ProblemNote } from '../../ui/ProblemNote.tsx'
import { TextField } from '../../ui/TextField.tsx'
import { onSubmit } from '../../ui/on-submit.ts'

export function SignIn() {
  const [mail, setMail] = useState('')
  const [password, setPassword] = useState('')
  const [signIn, { error, isLoading }] = useSignInMutation()
  const navigate = useNavigate()
  const { then } = (useLocation().state ?? {}) as { then?: string }
  const submit = async () => {
    const { data } = await signIn({ mail, password })
    if (data !== undefined) await navigate(then ?? '/', { replace: true })
  }
  return (
    <Entry title="Sign in">
      <form className="grid gap-4" onSubmit={onSubmit(submit)}>
        <TextField
          label="Mail address"
          type="email"
          autoComplete="username"
          required
          value={mail}
          onValue={setMail}
        />
        <TextField
          label="Password"
          type="password"
          autoComplete="current-password"
          required
          value={password}
          onValue={setPassword}
        />
        <ProblemNote problem={error as Problem | undefined} />
        <button className="btn btn-primary" disabled={isLoading}>
          Sign in
        </button>
      </form>
    </Entry>
  )
}
