import { useState } from 'react'
import type { SectionView } from '#contract/views/boards.ts'
import type { EditRequest } from '#contract/edit-requests.ts'
import { useChange } from '../../../api/use-change.ts'
import { AddByName } from '../../../ui/AddByName.tsx'
import { ProblemNote } from '../../../ui/ProblemNote.tsx'
import { useOpenBoard } from '../board-context.ts'

/** The sections of the board: made, named, put in order and deleted. Rows outlive them. */
export function SectionsPanel() {
  const { slug, node, info } = useOpenBoard()
  const { apply, problem, isBusy } = useChange(slug)
  const { sections } = info
  const create = async (name: string) => {
    const order = (sections.at(-1)?.order ?? 0) + 1
    const edit = {
      kind: 'section.create',
      section: 'new:section',
      board: node.id,
      name,
      order,
    } as const
    const { applied } = await apply([edit], `The section ${name} is created.`)
    return applied !== undefined
  }
  const swap = (index: number) => {
    const [upper, lower] = [sections[index - 1], sections[index]]
    if (upper === undefined || lower === undefined) return
    const edits: EditRequest[] = [
      { kind: 'section.change', section: lower.id, order: upper.order },
      {
        kind: 'section.change',
        section: upper.id,
        order: lower.order === upper.order ? upper.order + 1 : lower.order,
      },
    ]
    void apply(edits, 'The order of the sections is changed.')
  }
  return (
    <div className="grid gap-2">
      {sections.length === 0 && <p className="quiet">This board has no sections. All rows stand together.</p>}
      <ul className="grid gap-1.5">
        {sections.map((section, index) => (
          <One
            key={`${section.id} ${section.name}`}
            section={section}
            isFirst={index === 0}
            onUp={() => swap(index)}
            onApply={(edit, done) => void apply([edit], done)}
          />
        ))}
      </ul>
      <AddByName label="Name of the new section" isBusy={isBusy} onAdd={create}>
        Add section
      </AddByName>
      <ProblemNote problem={problem} />
    </div>
  )
}

interface OneProps {
  readonly section: SectionView
  readonly isFirst: boolean
  readonly onUp: () => void
  readonly onApply: (edit: EditRequest, done: string) => void
}

function One({ section: { id, name }, isFirst, onUp, onApply }: OneProps) {
  const [text, setText] = useState(name)
  const rename = () => {
    if (text.trim() !== '' && text.trim() !== name)
      onApply(
        { kind: 'section.change', section: id, name: text.trim() },
        `The section is called ${text.trim()}.`,
      )
  }
  return (
    <li className="flex items-center gap-1.5">
      <input
        className="field min-w-0"
        aria-label={`Name of the section ${name}`}
        maxLength={200}
        value={text}
        onChange={event => setText(event.target.value)}
        onBlur={rename}
        onKeyDown={event => {
          if (event.key === 'Enter') rename()
        }}
      />
      <button
        type="button"
        className="btn-inline"
        aria-label={`Move ${name} up`}
        disabled={isFirst}
        onClick={onUp}
      >
        ↑
      </button>
      <button
        type="button"
        className="btn-inline text-error"
        aria-label={`Delete the section ${name}`}
        onClick={() =>
          onApply({ kind: 'section.delete', section: id }, `The section ${name} is deleted. Its rows stay.`)
        }
      >
        ×
      </button>
    </li>
  )
}
