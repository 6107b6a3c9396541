import { useState } from 'react'
import { dayOf, endOfDay } from '#contract/dates.ts'
import type { JoinLinkView } from '#contract/views/onboarding.ts'
import { useChange } from '../../../api/use-change.ts'
import { peopleWords } from '#core/words/english.ts'
import { useHere } from '../../../api/use-here.ts'
import { Copy } from '../../../ui/Copy.tsx'
import { domainsIn } from '../../../ui/domains.ts'
import { onSubmit } from '../../../ui/on-submit.ts'
import { Panel } from '../../../ui/Panel.tsx'
import { ProblemNote } from '../../../ui/ProblemNote.tsx'
import { TextField } from '../../../ui/TextField.tsx'
import { OfferPreview, useOfferView } from './OfferPreview.tsx'
import { emptyOfferOf, offerOf } from './offer.ts'
import { OfferForm } from './OfferForm.tsx'
import { DayField } from '../../../ui/DayField.tsx'

interface Bounds {
  readonly name: string
  readonly through: string
  readonly domains: string
  readonly most: string
}

const boundsEdit = (bounds: Bounds, timeZone: string) => ({
  name: bounds.name.trim(),
  until: endOfDay(bounds.through, timeZone),
  domains: domainsIn(bounds.domains),
  most: bounds.most === '' ? null : Number(bounds.most),
})

interface PanelProps {
  readonly link: JoinLinkView
  readonly onClose: () => void
}

/** A join link: passed on, bounded, withdrawn; and what whoever comes by it gets. */
export function JoinLinkPanel({ link, onClose }: PanelProps) {
  const view = useOfferView({ offer: link.offer })
  return (
    <Panel title={link.name} onClose={onClose}>
      {link.address !== null && <Copy label="Join link" text={link.address} />}
      <p className="my-3">
        {link.used === 0 ? 'Nobody has used it yet.' : `${peopleWords(link.used)} joined by it.`}
        {!link.isOpen && <span className="text-warning"> It does not work any more.</span>}
        {link.isOpen && !link.letsIn && (
          <span className="text-warning">
            {' '}
            Nobody can use it: {link.by} may not give everything that it offers, or the settings do not allow
            its mail domains.
          </span>
        )}
      </p>
      <Changing link={link} onClose={onClose} />
      <section aria-label="What people get" className="mt-4 border-t border-base-content pt-2">
        <OfferPreview view={view} count={1} />
      </section>
    </Panel>
  )
}

function Changing({ link, onClose }: PanelProps) {
  const { slug, workspace } = useHere()
  const { apply, problem, isBusy } = useChange(slug)
  const [bounds, setBounds] = useState<Bounds>({
    name: link.name,
    through: dayOf(link.until - 1, workspace.timeZone),
    domains: link.domains.join(', '),
    most: link.most === null ? '' : String(link.most),
  })
  const change = async () => {
    const edit = { kind: 'link.change', link: link.id, ...boundsEdit(bounds, workspace.timeZone) } as const
    const { applied } = await apply([edit], `The join link ${bounds.name} is changed.`)
    if (applied !== undefined) onClose()
  }
  const withdraw = async () => {
    const confirmation = `The join link ${link.name} is withdrawn. Nobody can use it any more.`
    const { applied } = await apply([{ kind: 'link.withdraw', link: link.id }], confirmation)
    if (applied !== undefined) onClose()
  }
  return (
    <form className="grid gap-4" onSubmit={onSubmit(change)}>
      {link.mayChange && <BoundsFields bounds={bounds} onBounds={setBounds} />}
      <ProblemNote problem={problem} />
      <div className="flex justify-between gap-4">
        {link.mayChange ? (
          <button className="btn-main" disabled={isBusy || bounds.through === ''}>
            Save changes
          </button>
        ) : (
          <p className="quiet text-sm">{link.by} created it, and only they can change it.</p>
        )}
        {link.mayWithdraw && (
          <button
            type="button"
            className="btn-plain text-error"
            disabled={isBusy}
            onClick={() => void withdraw()}
          >
            Withdraw link
          </button>
        )}
      </div>
    </form>
  )
}

function BoundsFields({
  bounds,
  onBounds,
}: {
  readonly bounds: Bounds
  readonly onBounds: (bounds: Bounds) => void
}) {
  const field = (key: keyof Bounds) => ({
    value: bounds[key],
    onValue: (value: string) => onBounds({ ...bounds, [key]: value }),
  })
  return (
    <>
      <TextField label="Name" required {...field('name')} />
      <div className="grid grid-cols-2 gap-3">
        <DayField label="Works until" required {...field('through')} />
        <TextField
          label="Number of people, at most"
          type="number"
          min={1}
          hint="Empty: any number."
          {...field('most')}
        />
      </div>
      <TextField
        label="Only addresses of"
        placeholder="college.example, trust.example"
        hint="Mail domains. Empty: any address."
        {...field('domains')}
      />
    </>
  )
}

interface NewProps {
  readonly onClose: () => void
  readonly onMade: (id: string) => void
}

export function NewJoinLink({ onClose, onMade }: NewProps) {
  const { slug, workspace } = useHere()
  const { apply, problem, isBusy } = useChange(slug)
  const [openedAt] = useState(Date.now)
  const [bounds, setBounds] = useState<Bounds>({
    name: '',
    through: dayOf(openedAt + 14 * 86_400_000, workspace.timeZone),
    domains: '',
    most: '',
  })
  const [draft, setDraft] = useState(() => emptyOfferOf(workspace.me.privileges))
  const offer = offerOf(draft, workspace.timeZone)
  const view = useOfferView({ offer })
  const submit = async () => {
    const { applied } = await apply(
      [
        {
          kind: 'link.create',
          link: 'new:link',
          ...boundsEdit(bounds, workspace.timeZone),
          welcome: draft.welcome === '' ? null : draft.welcome,
          offer,
        },
      ],
      `The join link ${bounds.name.trim()} is created.`,
    )
    const made = applied?.made['new:link']
    if (made !== undefined) onMade(made)
  }
  return (
    <Panel title="Create join link" onClose={onClose}>
      <form className="grid gap-4" onSubmit={onSubmit(submit)}>
        <BoundsFields bounds={bounds} onBounds={setBounds} />
        <OfferForm offer={draft} onOffer={setDraft} />
        <section aria-label="What people get" className="border-t border-base-content pt-2">
          <OfferPreview view={view} count={1} />
        </section>
        <ProblemNote problem={problem} />
        <button
          className="btn-main justify-self-start"
          disabled={isBusy || bounds.name.trim() === '' || bounds.through === '' || view?.problem !== null}
        >
          Create join link
        </button>
      </form>
    </Panel>
  )
}
