import type { Privilege } from '#core/levels/privilege.ts'
import { withoutEffectYet } from '#core/words/privilege.ts'

/** Said of a privilege for what is not there yet. */
export const NoEffectYet = ({ privilege }: { readonly privilege: Privilege }) =>
  withoutEffectYet.has(privilege) && (
    <span className="quiet ml-1.5 text-sm font-normal whitespace-nowrap">no effect yet</span>
  )
