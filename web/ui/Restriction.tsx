import { useId } from 'react'
import { type Named, PrincipalList } from './PrincipalList.tsx'

interface Props {
  readonly title: string
  /** Who it is for where it is not restricted. */
  readonly everyone: string
  /** `null` where it is not restricted. */
  readonly chosen: readonly Named[] | null
  readonly options: readonly (Named & { readonly note: string })[]
  readonly onChosen: (chosen: readonly Named[] | null) => void
}

/** Everyone, or only some who are named. */
export function Restriction({ title, everyone, chosen, options, onChosen }: Props) {
  const name = useId()
  return (
    <fieldset>
      <legend className="label-line">{title}</legend>
      <label className="flex items-center gap-2 py-1">
        <input
          type="radio"
          className="radio radio-xs border-base-content/60"
          name={name}
          checked={chosen === null}
          onChange={() => onChosen(null)}
        />
        {everyone}
      </label>
      <label className="flex items-center gap-2 py-1">
        <input
          type="radio"
          className="radio radio-xs border-base-content/60"
          name={name}
          checked={chosen !== null}
          onChange={() => onChosen(chosen ?? [])}
        />
        Only these
      </label>
      {chosen !== null && (
        <div className="mt-1 ml-6">
          <PrincipalList label={title} chosen={chosen} options={options} onChosen={onChosen} />
        </div>
      )}
    </fieldset>
  )
}
