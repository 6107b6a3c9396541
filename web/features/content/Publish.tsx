import { useState } from 'react'
import type { EditRequest } from '#contract/edit-requests.ts'
import type { NodeView } from '#contract/views.ts'
import { useDecision } from '../../api/use-decision.ts'
import { Decision } from '../../ui/Decision.tsx'
import { FilterWords } from '../../ui/FilterWords.tsx'

type Web = NodeView['web']

interface Choice {
  readonly word: string
  readonly act: string
  readonly said: (name: string) => string
  readonly means: string
}

const choices: readonly (readonly [Web, Choice])[] = [
  [
    'published',
    {
      word: 'Published',
      act: 'Publish it',
      said: name => `${name} is on the web.`,
      means:
        'Everybody can read it and what is in it, without signing in. Drafts, breaks and what is kept off stay closed.',
    },
  ],
  [
    'excluded',
    {
      word: 'Kept off',
      act: 'Keep it off the web',
      said: name => `${name} is kept off the web.`,
      means: 'Whatever is published above, this and what is in it is not.',
    },
  ],
  [
    null,
    {
      word: 'As what it stands in',
      act: 'Let it follow',
      said: name => `${name} follows what it stands in, on the web too.`,
      means: 'On the web only if something that it stands in is published.',
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
  const decision = useDecision([edit], choice.said(node.name), onDone)
  const choose = (word: string) => setWeb(others.find(each => each[1].word === word)?.[0] ?? null)
  return (
    <Decision act={choice.act} onLeave={onDone} {...decision}>
      <FilterWords label="On the web" words={words} chosen={choice.word} onChoose={choose} />
      <p className="text-sm">{choice.means}</p>
    </Decision>
  )
}
