import type { AuditEntryView } from '#contract/views/history.ts'
import { ChoiceRow } from '../../ui/ChoiceRow.tsx'
import { Day, Time, useDates } from '../../ui/dates.tsx'
import { Effect } from './Impact.tsx'

interface Props {
  readonly entries: readonly AuditEntryView[]
  readonly chosen: string | undefined
  readonly onChoose: (revision: number) => void
}

/** Each day is said once. */
export function EntryRows({ entries, chosen, onChoose }: Props) {
  const inWords = useDates()
  return (
    <tbody>
      {entries.map((entry, index) => {
        const above = entries[index - 1]
        const isSameDay =
          above !== undefined && inWords(above.at, 'long day') === inWords(entry.at, 'long day')
        return (
          <ChoiceRow
            key={entry.revision}
            lead={
              <span className="flex justify-between gap-3">
                <span>{!isSameDay && <Day at={entry.at} />}</span>
                <span className="quiet">
                  <Time at={entry.at} />
                </span>
              </span>
            }
            isWrapping
            name={<Sentence entry={entry} />}
            isChosen={String(entry.revision) === chosen}
            onChoose={() => onChoose(entry.revision)}
          >
            <td>
              <Effect entry={entry} />
            </td>
          </ChoiceRow>
        )
      })}
    </tbody>
  )
}

const shownEvents = 2

function Sentence({ entry }: { readonly entry: AuditEntryView }) {
  const more = entry.eventCount - shownEvents
  const isUndone = entry.undoneBy !== null
  return (
    <span className={isUndone ? 'quiet font-normal line-through' : 'font-normal'}>
      <strong>{entry.author?.name ?? 'The workspace'}</strong>
      {entry.undoes !== null && ' by undoing'}{' '}
      {entry.events
        .slice(0, shownEvents)
        .map(event => event.text)
        .join('; ')}
      {more > 0 && ` and ${more} more`}
      {entry.reason !== '' && <span className="quiet"> · “{entry.reason}”</span>}
      {isUndone && <span className="sr-only"> (undone since)</span>}
    </span>
  )
}
