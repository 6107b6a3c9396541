/** What one signs in to, for whoever sees it for the first time: in three sentences and a drawing. */
export const WhatThisIs = () => (
  <aside
    aria-label="What Noskel is"
    className="border-base-300 px-10 py-14 max-lg:border-t max-lg:px-6 lg:border-l lg:bg-base-200/50"
  >
    <div className="max-w-xl">
      <h2 className="mb-4 text-xl leading-snug font-bold">
        A shared workspace in which you see who can do what, where and why.
      </h2>
      <Drawing />
      <ul className="mt-6 grid gap-3">
        <li className="border-t border-base-300 pt-3">
          <strong>Share</strong> folders, boards and pages with members, teams and guests.
        </li>
        <li className="border-t border-base-300 pt-3">
          <strong>Ask</strong> who can open a place, and read the reason for each name.
        </li>
        <li className="border-t border-base-300 pt-3">
          <strong>Know</strong> who gains and who loses access before you change anything.
        </li>
      </ul>
    </div>
  </aside>
)

const places = [
  { name: 'Sites', depth: 0 },
  { name: 'North shore', depth: 1 },
  { name: 'Nests', depth: 2 },
  { name: 'Method', depth: 1 },
] as const

const [rowHeight, top] = [34, 30]
const yOf = (row: number) => top + row * rowHeight

/** Access that flows down a tree of places: it widens at a grant, narrows at a limit, ends where inheritance is broken. */
const Drawing = () => (
  <svg
    viewBox="0 0 460 172"
    className="w-full text-[13px]"
    role="img"
    aria-label="Access flows down a tree of places: wider below a grant, narrower below a limit, none below a break."
  >
    {['Team', 'Member', 'Guest'].map((name, column) => (
      <text key={name} x={xOf(column)} y={14} textAnchor="middle" fill="var(--quiet)">
        {name}
      </text>
    ))}
    {places.map(({ name, depth }, row) => (
      <g key={name}>
        <line x1={0} x2={460} y1={yOf(row)} y2={yOf(row)} stroke="var(--color-base-300)" />
        <text x={4 + depth * 16} y={yOf(row) + 22} fill="currentColor">
          {name}
        </text>
      </g>
    ))}
    <Band column={0} from={0} to={1} width={12} shade={3} />
    <Band column={0} from={1} to={2} width={24} shade={5} />
    <Band column={0} from={3} to={4} width={12} shade={3} />
    <Sign column={0} row={1} word="grant" />
    <Band column={1} from={0} to={2} width={18} shade={4} />
    <Band column={1} from={3} to={4} width={18} shade={4} />
    <Band column={2} from={0} to={1} width={18} shade={4} />
    <Band column={2} from={1} to={2} width={8} shade={2} />
    <Band column={2} from={3} to={4} width={18} shade={4} />
    <Sign column={2} row={1} word="limit" />
    {[0, 1, 2].map(column => (
      <Sign key={column} column={column} row={2} word="break" />
    ))}
  </svg>
)

const xOf = (column: number) => 190 + column * 95

interface BandProps {
  readonly column: number
  /** Rows: from the upper edge of one to that of the other. */
  readonly from: number
  readonly to: number
  readonly width: number
  readonly shade: number
}

const Band = ({ column, from, to, width, shade }: BandProps) => (
  <rect
    x={xOf(column) - width / 2}
    y={yOf(from)}
    width={width}
    height={(to - from) * rowHeight}
    fill={`var(--level-${shade})`}
  />
)

interface SignProps {
  readonly column: number
  readonly row: number
  readonly word: 'grant' | 'limit' | 'break'
}

/** The mark of what is set at a place, with its word. */
const Sign = ({ column, row, word }: SignProps) => {
  const [x, y] = [xOf(column), yOf(row)]
  return (
    <g>
      {word === 'grant' && <circle cx={x} cy={y} r={6} fill="var(--level-7)" />}
      {word === 'limit' && <rect x={x - 15} y={y - 2} width={30} height={4} fill="currentColor" />}
      {word === 'break' && (
        <rect x={x - 15} y={y + 2} width={30} height={4} fill="none" stroke="var(--color-error)" />
      )}
      <text x={x + 20} y={y + (word === 'break' ? 16 : 4)} fontSize={11} fill="var(--quiet)">
        {word}
      </text>
    </g>
  )
}
