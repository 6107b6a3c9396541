import { useState } from 'react'
import type { AccountView, TwoStepView } from '#contract/views/account.ts'
import type { Problem } from '#contract/views/problem.ts'
import {
  useBeginTwoStepMutation,
  useConfirmTwoStepMutation,
  useEndTwoStepMutation,
} from '../../api/account.ts'
import { CodeField } from '../../ui/CodeField.tsx'
import { Copy } from '../../ui/Copy.tsx'
import { Day } from '../../ui/dates.tsx'
import { onSubmit } from '../../ui/on-submit.ts'
import { OpenedForm } from '../../ui/OpenedForm.tsx'
import { ProblemNote } from '../../ui/ProblemNote.tsx'
import { TextField } from '../../ui/TextField.tsx'
import { ActOrLeave } from '../../ui/ActOrLeave.tsx'

/** A code from an app besides the password: set up, used up and switched off here. */
export function TwoStep({ account: { twoStep } }: { readonly account: AccountView }) {
  const [codes, setCodes] = useState<readonly string[]>()
  return (
    <section aria-label="Two-step sign-in">
      <h2 className="mb-2 border-b border-base-300 pb-1 font-bold">Two-step sign-in</h2>
      {codes !== undefined && <RecoveryCodes codes={codes} onDone={() => setCodes(undefined)} />}
      {codes === undefined && twoStep === null && <SettingUp onCodes={setCodes} />}
      {codes === undefined && twoStep !== null && <InUse twoStep={twoStep} />}
    </section>
  )
}

function SettingUp({ onCodes }: { readonly onCodes: (codes: readonly string[]) => void }) {
  const [password, setPassword] = useState('')
  const [begin, { data, error, isLoading }] = useBeginTwoStepMutation()
  if (data !== undefined) return <Showing step={data} onCodes={onCodes} />
  return (
    <form
      className="grid gap-3"
      onSubmit={onSubmit(async () => {
        await begin({ password })
      })}
    >
      <p>
        When you sign in, you also enter a code from an app on your phone. Then nobody can sign in with your
        password alone.
      </p>
      <YourPassword password={password} onPassword={setPassword} />
      <ProblemNote problem={error as Problem | undefined} />
      <button className="btn-main justify-self-start" disabled={isLoading}>
        Set up
      </button>
    </form>
  )
}

interface YourPasswordProps {
  readonly password: string
  readonly onPassword: (password: string) => void
}

/** A sign-in that was left open is not enough to change how one signs in. */
const YourPassword = ({ password, onPassword }: YourPasswordProps) => (
  <TextField
    label="Your password"
    type="password"
    autoComplete="current-password"
    required
    value={password}
    onValue={onPassword}
  />
)

interface ShowingProps {
  readonly step: TwoStepView
  readonly onCodes: (codes: readonly string[]) => void
}

function Showing({ step, onCodes }: ShowingProps) {
  const [code, setCode] = useState('')
  const [confirm, { error, isLoading }] = useConfirmTwoStepMutation()
  const submit = async () => {
    const { data } = await confirm({ code })
    if (data !== undefined) onCodes(data.codes)
  }
  return (
    <form className="grid gap-3" onSubmit={onSubmit(submit)}>
      <p>Scan this with the app, or type the key into it.</p>
      <img src={step.qr} width={180} height={180} alt="QR code with the key" className="bg-white" />
      <Copy label="The key" text={step.secret} />
      <TextField
        label="Code from the app"
        autoComplete="one-time-code"
        inputMode="numeric"
        required
        maxLength={10}
        value={code}
        onValue={setCode}
      />
      <ProblemNote problem={error as Problem | undefined} />
      <button className="btn-main justify-self-start" disabled={isLoading}>
        Turn on two-step sign-in
      </button>
    </form>
  )
}

function RecoveryCodes({
  codes,
  onDone,
}: {
  readonly codes: readonly string[]
  readonly onDone: () => void
}) {
  return (
    <>
      <p className="mb-2">
        <strong>Save these recovery codes.</strong> If you lose the app, each code lets you sign in once. They
        are not shown again.
      </p>
      <ul aria-label="Recovery codes" className="mb-3 grid grid-cols-2 gap-x-6 font-mono">
        {codes.map(code => (
          <li key={code}>{code}</li>
        ))}
      </ul>
      <button type="button" className="btn-plain" onClick={onDone}>
        I have saved them
      </button>
    </>
  )
}

function InUse({ twoStep }: { readonly twoStep: NonNullable<AccountView['twoStep']> }) {
  const [password, setPassword] = useState('')
  const [code, setCode] = useState('')
  const [isEnding, setEnding] = useState(false)
  const [end, { error, isLoading }] = useEndTwoStepMutation()
  return (
    <>
      <p className="mb-3">
        On since <Day at={twoStep.since} />.{' '}
        <span className={twoStep.recoveryCodesLeft < 3 ? 'text-warning' : ''}>
          {twoStep.recoveryCodesLeft === 1
            ? '1 recovery code is left.'
            : `${twoStep.recoveryCodesLeft} recovery codes are left.`}
        </span>{' '}
        To get new codes, turn it off and set it up again.
      </p>
      {isEnding ? (
        <OpenedForm
          label="Turn off two-step sign-in"
          className="grid gap-3"
          onAct={async () => {
            await end({ password, code })
          }}
          onLeave={() => setEnding(false)}
        >
          <YourPassword password={password} onPassword={setPassword} />
          <CodeField code={code} onCode={setCode} />
          <ProblemNote problem={error as Problem | undefined} />
          <ActOrLeave label="Turn off" isDisabled={isLoading} onLeave={() => setEnding(false)} />
        </OpenedForm>
      ) : (
        <button type="button" className="btn-plain" onClick={() => setEnding(true)}>
          Turn off …
        </button>
      )}
    </>
  )
}
