import type { ReactNode } from 'react'

interface Props {
  readonly isOn: boolean
  readonly onTick: (isOn: boolean) => void
  readonly isDisabled?: boolean
  readonly children: ReactNode
}

/** A box to tick with its words. */
export const Tick = ({ isOn, onTick, isDisabled = false, children }: Props) => (
  <label className="flex items-start gap-2">
    <input
      type="checkbox"
      className="checkbox checkbox-sm mt-0.5 shrink-0 border-base-content/60"
      checked={isOn}
      disabled={isDisabled}
      onChange={event => onTick(event.target.checked)}
    />
    <span className="min-w-0">{children}</span>
  </label>
)
