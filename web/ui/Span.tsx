import { DayField } from './DayField.tsx'

interface Props {
  readonly from: string
  readonly through: string
  readonly onFrom: (day: string) => void
  readonly onThrough: (day: string) => void
}

/** From which day on something counts, and the last day that it does. */
export const Span = ({ from, through, onFrom, onThrough }: Props) => (
  <div>
    <div className="grid grid-cols-2 gap-2">
      <DayField label="Starts" value={from} onValue={onFrom} />
      <DayField label="Ends after" value={through} onValue={onThrough} />
    </div>
    <p className="quiet mt-1 text-sm">Empty: starts now and does not end.</p>
  </div>
)
