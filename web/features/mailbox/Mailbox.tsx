import { useState } from 'react'
import type { MailView } from '#contract/views/account.ts'
import { useMailboxQuery } from '../../api/api.ts'
import { Day } from '../../ui/dates.tsx'

/** The demo's mailbox: every mail that would have gone out, so that both ends of an invitation can be played. */
export function Mailbox() {
  const { data: mails, isError } = useMailboxQuery(undefined, {
    pollingInterval: 2000,
    refetchOnMountOrArgChange: true,
  })
  const [chosen, setChosen] = useState<string>()
  const open = mails?.find(mail => mail.id === chosen) ?? mails?.[0]
  if (isError) return <p className="p-6">The mailbox exists only in the demo.</p>
  return (
    <main className="mx-auto grid max-w-5xl gap-6 px-6 py-8 md:grid-cols-[20rem_1fr]">
      <div>
        <h1 className="mb-1 text-xl font-bold">Mailbox</h1>
        <p className="quiet mb-4 text-sm">All mails of the demo arrive here.</p>
        {mails?.length === 0 && <p>No mail yet. Invite somebody, and the mail appears here.</p>}
        <ul>
          {mails?.map(mail => (
            <li key={mail.id} className="border-t border-base-300">
              <button
                type="button"
                aria-current={mail.id === open?.id}
                className={`w-full cursor-pointer px-2 py-2 text-left ${mail.id === open?.id ? 'bg-base-200' : ''}`}
                onClick={() => setChosen(mail.id)}
              >
                <span className="flex justify-between gap-3">
                  <span className="truncate font-semibold">{mail.to}</span> <Day at={mail.at} />
                </span>
                <span className="block truncate text-sm">{mail.subject}</span>
              </button>
            </li>
          ))}
        </ul>
      </div>
      {open !== undefined && <Letter mail={open} />}
    </main>
  )
}

const Letter = ({ mail }: { readonly mail: MailView }) => (
  <article className="border-l border-base-300 pl-6">
    <h2 className="text-lg font-bold">{mail.subject}</h2>
    <p className="quiet mb-4 text-sm">to {mail.to}</p>
    {mail.text.split('\n\n').map(part => (
      <p key={part} className="mb-3 break-words">
        {/^https?:\S+$/.test(part) ? (
          <a className="link" href={part}>
            {part}
          </a>
        ) : (
          part
        )}
      </p>
    ))}
  </article>
)
