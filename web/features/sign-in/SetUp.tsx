import { useState } from 'react'
import { Navigate, useNavigate } from 'react-router'
import type { Problem } from '#contract/views/problem.ts'
import { useSessionQuery, useSetUpMutation } from '../../api/api.ts'
import { Entry } from '../../ui/SignInFrame.tsx'
import { ProblemNote } from '../../ui/ProblemNote.tsx'
import { TextField } from '../../ui/TextField.tsx'
import { NewPasswordField } from '../../ui/NewPasswordField.tsx'
import { onSubmit } from '../../ui/on-submit.ts'
import { WhatThisIs } from './WhatThisIs.tsx'

const empty = { workspace: '', name: '', mail: '', password: '' }

/** First start: the workspace and its Owner. */
export function SetUp() {
  const { data: session } = useSessionQuery()
  const [fields, setFields] = useState(empty)
  const [setUp, { error, isLoading }] = useSetUpMutation()
  const navigate = useNavigate()
  const field = (key: keyof typeof empty) => ({
    value: fields[key],
    onValue: (value: string) => setFields({ ...fields, [key]: value }),
    required: true,
  })
  const submit = async () => {
    const { timeZone } = Intl.DateTimeFormat().resolvedOptions()
    const { data } = await setUp({ ...fields, timeZone })
    if (data !== undefined) await navigate('/', { replace: true })
  }
  if (session?.isSetUp === true) return <Navigate to="/" replace />
  return (
    <Entry title="Create your workspace" beside={<WhatThisIs />}>
      <p className="mb-5">You become its owner: you invite people and decide who has access to what.</p>
      <form className="grid gap-4" onSubmit={onSubmit(submit)}>
        <TextField label="Name of the workspace" {...field('workspace')} />
        <TextField label="Your name" autoComplete="name" {...field('name')} />
        <TextField label="Your mail address" type="email" autoComplete="username" {...field('mail')} />
        <NewPasswordField
          label="Password"
          of={{ mail: fields.mail, words: [fields.name, fields.workspace] }}
          value={fields.password}
          onValue={password => setFields({ ...fields, password })}
        />
        <ProblemNote problem={error as Problem | undefined} />
        <button className="btn btn-primary" disabled={isLoading}>
          Create workspace
        </button>
      </form>
    </Entry>
  )
}
