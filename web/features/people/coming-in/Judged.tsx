import { useEffect, useState } from 'react'
import { Link } from 'react-router'
import type { AddressView } from '#contract/views/onboarding.ts'
import { useJudgeAddressesMutation } from '../../../api/people.ts'
import { numberWords, peopleWords } from '#core/words/english.ts'
import { useHere } from '../../../api/use-here.ts'
import { readAddresses } from './addresses.ts'

export const isInvitable = ({ verdict }: AddressView): boolean =>
  verdict === 'new' || verdict === 'removed earlier'

interface Answer {
  readonly query: string
  readonly addresses: readonly AddressView[]
}

/** The addresses as the server judges them, a moment after they were typed; until then those before, not current. */
export function useJudged(text: string, as: 'member' | 'guest') {
  const { slug } = useHere()
  const [judge] = useJudgeAddressesMutation()
  const [answer, setAnswer] = useState<Answer>({ query: '', addresses: [] })
  const query = `${as} ${text}`
  useEffect(() => {
    const addresses = readAddresses(text)
    let isWanted = true
    const timer = setTimeout(() => {
      if (addresses.length === 0) setAnswer({ query, addresses: [] })
      else
        void judge({ slug, as, addresses }).then(({ data }) => {
          if (isWanted && data !== undefined) setAnswer({ query, addresses: data })
        })
    }, 200)
    return () => {
      isWanted = false
      clearTimeout(timer)
    }
  }, [as, query, judge, slug, text])
  return { addresses: answer.addresses, isCurrent: answer.query === query }
}

interface JudgedProps {
  readonly addresses: readonly AddressView[]
  readonly onMeant: (address: AddressView) => void
}

/** Each address with what comes of it; who is here already is a way to them. */
export function Judged({ addresses, onMeant }: JudgedProps) {
  const good = addresses.filter(isInvitable).length
  if (addresses.length === 0) return null
  return (
    <>
      <p role="status" className="text-sm">
        <strong>{peopleWords(good)} to invite</strong>
        {addresses.length > good && `, ${numberWords(addresses.length - good)} skipped`}
      </p>
      <ul aria-label="Addresses">
        {addresses.map((address, index) => (
          <li key={index} className="border-b border-base-300 py-1">
            <span className="flex items-baseline justify-between gap-3">
              <span className="truncate" title={address.mail}>
                {address.name !== '' && `${address.name} `}
                <span className={address.name === '' ? '' : 'quiet text-sm'}>{address.mail}</span>
              </span>
              <Verdict address={address} />
            </span>
            {address.meant !== null && (
              <span className="block text-sm text-warning">
                Looks like a typing error.{' '}
                <button type="button" className="btn-inline" onClick={() => onMeant(address)}>
                  Use {address.meant}
                </button>
              </span>
            )}
            {address.isOfOtherScript && isInvitable(address) && (
              <span className="block text-sm text-warning">
                Not every mail server accepts an address in this script.
              </span>
            )}
          </li>
        ))}
      </ul>
    </>
  )
}

function Verdict({ address: { verdict, person } }: { readonly address: AddressView }) {
  const { slug } = useHere()
  const look = `shrink-0 text-sm ${toneOf(verdict)}`
  if (person === null) return <span className={look}>{verdict}</span>
  return (
    <Link to={`/at/${slug}/people/${person}`} className={`link ${look}`}>
      {verdict}
    </Link>
  )
}

function toneOf(verdict: AddressView['verdict']): string {
  if (verdict === 'new') return 'quiet'
  return verdict === 'removed earlier' ? 'text-warning' : 'text-error'
}
