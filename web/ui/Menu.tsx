import * as Ariakit from '@ariakit/react'
import type { ReactNode } from 'react'
import { Link } from 'react-router'
import { menuButton, MenuLabel } from './menu-button.tsx'

interface Props {
  readonly button: ReactNode
  readonly buttonClass?: string
  /** Whether its button is told from text by a sign, and not by where it stands. */
  readonly hasSign?: boolean
  /** Whether it stands open when it comes. */
  readonly isOpen?: boolean
  readonly children: ReactNode
}

/** A button that opens a list of ways and acts. */
export const Menu = ({ button, buttonClass = '', hasSign = true, isOpen = false, children }: Props) => (
  <Ariakit.MenuProvider defaultOpen={isOpen}>
    <Ariakit.MenuButton className={menuButton(buttonClass)}>
      {hasSign ? <MenuLabel>{button}</MenuLabel> : button}
    </Ariakit.MenuButton>
    <Ariakit.Menu
      gutter={4}
      unmountOnHide
      className="z-30 font-normal text-base-content max-h-(--popover-available-height) min-w-56 overflow-y-auto border border-base-content bg-base-100 py-1 text-[0.95rem]"
    >
      {children}
    </Ariakit.Menu>
  </Ariakit.MenuProvider>
)

const itemClass = 'flex w-full cursor-pointer items-center gap-2 px-3 py-1.5 data-active-item:bg-base-200'

export const MenuLink = ({ to, children }: { readonly to: string; readonly children: ReactNode }) => (
  <Ariakit.MenuItem className={itemClass} render={<Link to={to} />}>
    {children}
  </Ariakit.MenuItem>
)

/** Something that is saved to the disk. */
export const MenuDownload = ({ href, children }: { readonly href: string; readonly children: ReactNode }) => (
  <Ariakit.MenuItem className={itemClass} render={<a href={href} download />}>
    {children}
  </Ariakit.MenuItem>
)

interface ActProps {
  readonly onAct: () => void
  readonly isDrastic?: boolean
  readonly children: ReactNode
}

export const MenuAct = ({ onAct, isDrastic = false, children }: ActProps) => (
  <Ariakit.MenuItem className={`${itemClass} ${isDrastic ? 'text-error' : ''}`} onClick={onAct}>
    {children}
  </Ariakit.MenuItem>
)

export const MenuRule = () => <Ariakit.MenuSeparator className="my-1 border-base-300" />

interface TickProps {
  readonly isOn: boolean
  readonly onTurn: (isOn: boolean) => void
  readonly children: string
}

/** Something that is on or off, within a menu that stays open. */
export const MenuTick = ({ isOn, onTurn, children }: TickProps) => (
  <Ariakit.MenuItemCheckbox
    name={children}
    checked={isOn}
    className={itemClass}
    onChange={event => onTurn(event.target.checked)}
  >
    <Ariakit.MenuItemCheck />
    {children}
  </Ariakit.MenuItemCheckbox>
)

interface ChoiceProps<Value extends string> {
  readonly label: string
  readonly values: Readonly<Record<Value, string>>
  readonly chosen: Value
  readonly onChoose: (value: Value) => void
}

/** One of a few, within a menu that stays open. */
export const MenuChoice = <Value extends string>({ label, values, chosen, onChoose }: ChoiceProps<Value>) => (
  <Ariakit.MenuGroup>
    <Ariakit.MenuGroupLabel className="quiet px-3 pt-1 text-sm">{label}</Ariakit.MenuGroupLabel>
    {Object.entries<string>(values).map(([value, word]) => (
      <Ariakit.MenuItemRadio
        key={value}
        name={label}
        value={value}
        checked={value === chosen}
        className={itemClass}
        onChange={() => onChoose(value as Value)}
      >
        <Ariakit.MenuItemCheck />
        {word}
      </Ariakit.MenuItemRadio>
    ))}
  </Ariakit.MenuGroup>
)
