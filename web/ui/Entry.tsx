import type { ReactNode } from 'react'

/** A page before one is in a workspace: one narrow column under the product's name. */
export const Entry = ({ title, children }: { readonly title: string; readonly children: ReactNode }) => (
  <main className="mx-auto max-w-md px-6 py-14">
    <p className="mb-8 flex items-center gap-2 border-b border-base-content pb-3 font-bold">
      <img src="/mark.svg" alt="" width={20} height={20} /> Noskel
    </p>
    <h1 className="mb-4 text-2xl font-bold">{title}</h1>
    {children}
  </main>
)
