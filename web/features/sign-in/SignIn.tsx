import { useState } from 'react'
import { Link, useLocation, useNavigate } from 'react-router'
import type { Problem } from '#contract/views/problem.ts'
import { useSignInMutation } from '../../api/api.ts'
import { Entry } from '../../ui/SignInFrame.tsx'
import { onSubmit } from '../../ui/on-submit.ts'
import { ProblemNote } from '../../ui/ProblemNote.tsx'
import { CodeField } from '../../ui/CodeField.tsx'
import { TextField } from '../../ui/TextField.tsx'
import { WhatThisIs } from './WhatThisIs.tsx'
import { asksForCode } from './two-step.ts'

export function SignIn() {
  const [mail, setMail] = useState('')
  const [password, setPassword] = useState('')
  const [code, setCode] = useState('')
  const [needsCode, setNeedsCode] = useState(false)
  const [signIn, { error, isLoading }] = useSignInMutation()
  const navigate = useNavigate()
  const { then, message } = (useLocation().state ?? {}) as { then?: string; message?: string }
  const submit = async () => {
    const { data, error } = await signIn({ mail, password, ...(needsCode ? { code } : {}) })
    if (data !== undefined) await navigate(then ?? '/', { replace: true })
    else if (asksForCode(error)) setNeedsCode(true)
  }
  const problem = asksForCode(error) ? undefined : (error as Problem | undefined)
  return (
    <Entry title={needsCode ? 'Two-step sign-in' : 'Sign in'} beside={<WhatThisIs />}>
      {message !== undefined && !needsCode && (
        <p className="mb-4 border-l-4 border-primary bg-base-200 px-3 py-2">{message}</p>
      )}
      <form className="grid gap-4" onSubmit={onSubmit(submit)}>
        {needsCode ? (
          <CodeField code={code} onCode={setCode} isAlone />
        ) : (
          <>
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
          </>
        )}
        <ProblemNote problem={problem} />
        <button className="btn btn-primary" disabled={isLoading}>
          Sign in
        </button>
        {!needsCode && (
          <Link className="link justify-self-start text-sm" to="/forgotten" state={{ mail }}>
            I forgot my password
          </Link>
        )}
      </form>
    </Entry>
  )
}
