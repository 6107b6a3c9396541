import type { ReactNode } from 'react'

interface Props {
  readonly title: string
  /** What stands beside it where there is room, and below it on a phone. */
  readonly beside?: ReactNode
  readonly children: ReactNode
}

/** A page before one is in a workspace: one narrow column under the product's name. */
export const Entry = ({ title, beside, children }: Props) =>
  beside === undefined ? (
    <Column title={title}>{children}</Column>
  ) : (
    <div className="grid min-h-dvh lg:grid-cols-2">
      <Column title={title}>{children}</Column>
      {beside}
    </div>
  )

const Column = ({ title, children }: Pick<Props, 'title' | 'children'>) => (
  <main className="mx-auto w-full max-w-md px-6 py-14">
    <p className="mb-8 flex items-center gap-2 border-b border-base-content pb-3 font-bold">
      <img src="/mark.svg" alt="" width={20} height={20} /> Noskel
    </p>
    <h1 className="mb-4 text-2xl font-bold">{title}</h1>
    {children}
  </main>
)
