import { useState } from 'react'
import type { NodeView } from '#contract/views/content.ts'
import { type Receiver, useReceivers } from '../../../api/use-receivers.ts'
import { useHere } from '../../../api/use-here.ts'
import { Combobox, type Option } from '../../../ui/Combobox.tsx'
import { ShareForm } from './ShareForm.tsx'

/** Opens a place for somebody: a person, a team, all members, or an address from outside. */
export function Share({ node }: { readonly node: NodeView }) {
  const { slug, workspace } = useHere()
  const { receivers, people, noteOf } = useReceivers(slug)
  const [receiver, setReceiver] = useState<Receiver>()
  if (receiver !== undefined)
    return <ShareForm node={node} receiver={receiver} onDone={() => setReceiver(undefined)} />
  const mayInvite = workspace.me.privileges.includes('invite guests')
  const known = new Set(people.map(person => person.mail.toLowerCase()))
  const offer = (typed: string): Option | undefined =>
    mayInvite && /^\S+@\S+\.\S+$/.test(typed) && !known.has(typed.toLowerCase())
      ? { value: `mail:${typed.toLowerCase()}`, name: typed, note: 'new: invite' }
      : undefined
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
      label="Share with a person, team or address"
      placeholder="Share with a person, team or address"
      options={receivers.map(each => ({ value: each.principal, name: each.name, note: noteOf(each) }))}
      offer={offer}
      onChoose={choose}
    />
  )
}
