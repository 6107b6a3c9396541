import { useState } from 'react'
import type { NodeView } from '#contract/views.ts'
import { usePeopleNamesQuery, useTeamsQuery } from '../../api/api.ts'
import { useHere } from '../../api/use-here.ts'
import { Combobox, type Option } from '../../ui/Combobox.tsx'
import { ShareForm, type Receiver } from './ShareForm.tsx'

/** Opens a place for somebody: a person, a team, all members, or an address from outside. */
export function Share({ node }: { readonly node: NodeView }) {
  const { slug, workspace } = useHere()
  const { data: people = [] } = usePeopleNamesQuery(slug)
  const { data: teams = [] } = useTeamsQuery(slug)
  const [receiver, setReceiver] = useState<Receiver>()
  if (receiver !== undefined)
    return <ShareForm node={node} receiver={receiver} onDone={() => setReceiver(undefined)} />
  const receivers: Receiver[] = [
    { principal: 'everyone', name: 'All members', kind: 'everyone' },
    ...teams.map(team => ({ principal: `team:${team.id}`, name: team.name, kind: 'team' }) as const),
    ...teams.map(
      team => ({ principal: `leads:${team.id}`, name: `Leads of ${team.name}`, kind: 'leads' }) as const,
    ),
    ...people.map(({ id, name, kind }) => ({ principal: `person:${id}`, name, kind }) as const),
  ]
  const mayInvite = workspace.me.privileges.includes('invite guests')
  const known = new Set(people.map(person => person.mail.toLowerCase()))
  const offer = (typed: string): Option | undefined =>
    mayInvite && /^\S+@\S+\.\S+$/.test(typed) && !known.has(typed.toLowerCase())
      ? { value: `mail:${typed.toLowerCase()}`, name: typed, note: 'from outside: invite' }
      : undefined
  const mails = new Map(people.map(person => [`person:${person.id}`, person.mail]))
  const choose = ({ value }: Option) => {
    const mail = value.startsWith('mail:') ? value.slice('mail:'.length) : undefined
    setReceiver(
      mail === undefined
        ? receivers.find(each => each.principal === value)
        : { principal: 'person:new:guest', name: mail, kind: 'guest', mail },
    )
  }
  return (
    <Combobox
      label="Open this for somebody"
      placeholder="Open this for: a name, team or address"
      options={receivers.map(({ principal, name, kind }) => ({
        value: principal,
        name,
        note: mails.get(principal) ?? kindWords[kind],
      }))}
      offer={offer}
      onChoose={choose}
    />
  )
}

const kindWords: Readonly<Record<Receiver['kind'], string>> = {
  member: 'member',
  guest: 'guest',
  team: 'team',
  leads: 'leads',
  everyone: 'everyone but guests',
}
