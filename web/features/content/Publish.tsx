import { useState } from 'react'
import type { EditRequest } from '#contract/edit-requests.ts'
import type { NodeView } from '#contract/views/content.ts'
import { useDecision } from '../../api/use-decision.ts'
import { Decision } from '../../ui/Decision.tsx'
import { FilterWords } from '../../ui/FilterWords.tsx'

type Web = NodeView['web']

interface Choice {
  readonly word: string
  readonly label: string
  readonly confirmation: (name: string) => string
  readonly means: string
}

const choices: readonly (readonly [Web, Choice])[] = [
  [
    'published',
    {
      word: 'On the web',
      label: 'Publish',
      confirmation: name => `${name} is on the web.`,
      means:
        'Everybody on the web can read this place and everything in it without signing in, except drafts, places with broken inheritance and places that are kept off the web.',
    },
  ],
  [
    'excluded',
    {
      word: 'Off the web',
      label: 'Keep off the web',
      confirmation: name => `${name} is kept off the web.`,
      means: 'This place and everything in it is not published, even if a place above is.',
    },
  ],
  [
    null,
    {
      word: 'Same as the place above',
      label: 'Use the setting of the place above',
      confirmation: name => `${name} is published only if a place above is.`,
      means: 'On the web only if a place above is published.',
    },
  ],
]

/** What of a place the whole world reads. Working out what it does tells of the web like of one person. */
export function Publish({ node, onDone }: { readonly node: NodeView; readonly onDone: () => void }) {
  const others = choices.filter(([web]) => web !== node.web)
  const [web, setWeb] = useState<Web>(others[0]?.[0] ?? null)
  const choice = (choices.find(each => each[0] === web) as (typeof choices)[number])[1]
  const words = others.map(([, { word }]) => word)
  const edit: EditRequest = { kind: 'node.web', node: node.id, web }
  const decision = useDecision([edit], choice.confirmation(node.name), onDone)
  const choose = (word: string) => setWeb(others.find(each => each[1].word === word)?.[0] ?? null)
  return (
    <Decision label={choice.label} onLeave={onDone} {...decision}>
      <FilterWords label="On the web" words={words} chosen={choice.word} onChoose={choose} />
      <p className="text-sm">{choice.means}</p>
    </Decision>
  )
}
