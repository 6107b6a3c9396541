import { X } from 'lucide-react'
import type { PrincipalName } from '#contract/views/names.ts'
import { Combobox } from './Combobox.tsx'

export type Named = Pick<PrincipalName, 'principal' | 'name'>

interface Props {
  readonly label: string
  readonly chosen: readonly Named[]
  readonly options: readonly (Named & { readonly note: string })[]
  readonly onChosen: (chosen: readonly Named[]) => void
}

/** People and teams that something is for: found by typing, each taken off by its button. */
export const PrincipalList = ({ label, chosen, options, onChosen }: Props) => (
  <div>
    <ul className="mb-1.5 flex flex-wrap gap-1.5 empty:hidden">
      {chosen.map(({ principal, name }) => (
        <li key={principal} className="flex items-center gap-1 bg-base-100 px-2 py-0.5 text-sm">
          {name}
          <button
            type="button"
            className="cursor-pointer p-0.5"
            aria-label={`Remove ${name}`}
            onClick={() => onChosen(chosen.filter(each => each.principal !== principal))}
          >
            <X size={14} aria-hidden />
          </button>
        </li>
      ))}
    </ul>
    <Combobox
      label={label}
      placeholder="Add a person or team"
      options={options
        .filter(option => !chosen.some(each => each.principal === option.principal))
        .map(({ principal, name, note }) => ({ value: principal, name, note }))}
      onChoose={({ value, name }) => onChosen([...chosen, { principal: value, name } as Named])}
    />
  </div>
)
