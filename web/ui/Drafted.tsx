import type { ReactNode } from 'react'

interface Props {
  /** The fields that decide what the act is: they stay where they are while one types, whatever stands below. */
  readonly children: ReactNode
  /** The act with its effect; nothing while the fields make none. */
  readonly decision: ReactNode
  readonly onLeave?: () => void
}

/** Fields, and below them the act that they come to: with nothing to do yet, only the way out. */
export const Drafted = ({ children, decision, onLeave }: Props) => (
  <div className="mt-2 bg-base-200">
    <div className="grid gap-3 p-3">{children}</div>
    {decision ??
      (onLeave !== undefined && (
        <p className="flex justify-end px-3 pb-3">
          <button type="button" className="btn-plain" onClick={onLeave}>
            Discard it
          </button>
        </p>
      ))}
  </div>
)
