import type { ReactNode } from 'react'

/** How the button of a menu looks, before its menu has come too. */
export const menuButton = (more: string) => `flex cursor-pointer items-center gap-2 ${more}`

export const MenuLabel = ({ children }: { readonly children: ReactNode }) => (
  <>
    {children}
    <svg
      aria-hidden
      viewBox="0 0 16 16"
      className="quiet size-[1em]"
      fill="none"
      stroke="currentColor"
      strokeWidth="1.5"
      strokeLinecap="round"
      strokeLinejoin="round"
    >
      <polyline points="4,6 8,10 12,6" />
    </svg>
  </>
)
