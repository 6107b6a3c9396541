import { skipToken } from '@reduxjs/toolkit/query'
import { Link } from 'react-router'
import { counted, numberWords } from '#core/words/english.ts'
import { useReachQuery } from '../../api/boards.ts'
import { useOpenBoard } from './board-context.ts'
import { Notice } from './Notice.tsx'

/** A row into which somebody put links to places. */
export interface Linked {
  readonly row: string
  readonly name: string
  readonly places: readonly string[]
}

interface Props {
  readonly linked: Linked | undefined
  readonly onClose: () => void
}

/** Whoever links a place in a row is told at once how many of those who read the row cannot open it, as far as they may know. */
export function OutOfReach({ linked, onClose }: Props) {
  const { slug } = useOpenBoard()
  const { data } = useReachQuery(
    linked === undefined ? skipToken : { slug, id: linked.row, people: [], places: [...linked.places] },
  )
  if (linked === undefined || data === undefined || data.readers === null || data.places.length === 0)
    return null
  const { readers, places } = data
  return (
    <Notice label="Places out of reach" isSaid onClose={onClose}>
      {places.map(({ id, name, without }) => (
        <p key={id}>
          {numberWords(without)} of {counted(readers, 'reader', 'readers')} of {linked.name} cannot open{' '}
          <strong>{name}</strong>. They see no link to it.{' '}
          <Link className="link underline" to={`/at/${slug}/content/${id}`}>
            Open it for them
          </Link>
        </p>
      ))}
    </Notice>
  )
}
