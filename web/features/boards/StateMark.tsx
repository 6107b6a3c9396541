import type { Mark } from '#core/boards/kinds/state.ts'

const line = { fill: 'none', stroke: 'currentColor', strokeWidth: 1.6 } as const

/** The twelve shapes that mark states: drawn in ink, told apart by their form. */
const shapes: Readonly<Record<Mark, React.ReactNode>> = {
  ring: <circle cx="7" cy="7" r="4.6" {...line} />,
  half: (
    <>
      <circle cx="7" cy="7" r="4.6" {...line} />
      <path d="M7 2.4a4.6 4.6 0 0 1 0 9.2z" fill="currentColor" />
    </>
  ),
  disc: <circle cx="7" cy="7" r="5" fill="currentColor" />,
  dotted: <circle cx="7" cy="7" r="4.6" {...line} strokeDasharray="2 1.9" />,
  triangle: <path d="M7 2.2 12 11.4H2z" {...line} strokeLinejoin="round" />,
  wedge: <path d="M3 2.5 12 7 3 11.5z" fill="currentColor" />,
  diamond: <path d="M7 1.4 12.4 7 7 12.6 1.6 7z" fill="currentColor" />,
  square: <rect x="2.6" y="2.6" width="8.8" height="8.8" {...line} />,
  cross: <path d="m3 3 8 8m0-8-8 8" {...line} strokeWidth={1.9} strokeLinecap="round" />,
  bars: <path d="M3.2 2.6v8.8M7 2.6v8.8M10.8 2.6v8.8" {...line} />,
  steps: <path d="M1.8 11.4h3.4V8h3.4V4.6H12" {...line} />,
  wave: <path d="M1.5 8.4c1.8-4 3.6-4 5.5 0s3.7 4 5.5 0" {...line} />,
}

/** A state's mark; its name stands beside it, so that nothing hangs on it alone. */
export const StateMark = ({ mark, isFinished }: { readonly mark: Mark; readonly isFinished: boolean }) => (
  <svg
    aria-hidden
    viewBox="0 0 14 14"
    className={`inline size-3.5 shrink-0 ${isFinished ? 'text-primary' : ''}`}
  >
    {shapes[mark]}
  </svg>
)
