import type { Visitor } from './visitor.ts'

/** The table of a board, as people see it and write in it. */

export const keys = (visitor: Visitor, ...all: string[]) =>
  visitor.driver
    .actions()
    .sendKeys(...all)
    .perform()

export const chord = async (visitor: Visitor, modifier: string, key: string) =>
  visitor.driver.actions().keyDown(modifier).sendKeys(key).keyUp(modifier).perform()

/** The words of a row, cell by cell, as the table shows them. */
export const rowOf = (visitor: Visitor, name: string) =>
  visitor.driver.executeScript<string[]>(
    `const row = [...document.querySelectorAll('[role=row]')].find(each => each.innerText.startsWith(arguments[0]))
     if (row === undefined) return []
     const cells = []
     for (const each of row.querySelectorAll('[role=gridcell]')) cells[each.ariaColIndex - 1] = each.innerText.trim()
     return Array.from(cells, each => each ?? '')`,
    name,
  )

export const rowsShown = (visitor: Visitor) =>
  visitor.driver.executeScript<string[]>(
    `return [...document.querySelectorAll('[role=row][aria-rowindex]')].slice(1).map(each => each.querySelector('[role=gridcell]').innerText.split('\\n')[0])`,
  )

export const until = (visitor: Visitor, holds: () => Promise<boolean>, what: string) =>
  visitor.driver.wait(holds, 10_000, what)

/** Puts the focus on the table, at the cell of a row in a column, as a click does. */
export async function standOn(visitor: Visitor, row: string, column: string): Promise<void> {
  const head = () =>
    visitor.driver.executeScript<number>(
      `return [...document.querySelectorAll('[role=columnheader]')].findIndex(each => each.innerText.split(/ [·↑↓]|,/)[0].trim() === arguments[0])`,
      column,
    )
  await until(visitor, async () => (await head()) !== -1, `the column ${column}`)
  const index = await head()
  // Only what is in sight is drawn.
  await visitor.driver.executeScript(
    `document.querySelectorAll('[role=columnheader]')[arguments[0]].scrollIntoView({ block: 'nearest', inline: 'center' })`,
    index,
  )
  const line = await visitor.find(
    `//*[@role='row'][*[@role='gridcell'][1][starts-with(normalize-space(), "${row}")]]/*[@aria-colindex='${index + 1}']`,
  )
  await visitor.driver.executeScript(
    `arguments[0].scrollIntoView({ block: 'nearest', inline: 'nearest' })
     document.querySelector('[role=grid]').focus()`,
    line,
  )
  await visitor.driver.actions().move({ origin: line }).click().perform()
  await visitor.driver.executeScript(`document.querySelector('[role=grid]').focus()`)
}

/** As the clipboard gives it. */
export const paste = (visitor: Visitor, text: string) =>
  visitor.driver.executeScript(
    `const data = new DataTransfer()
     data.setData('text/plain', arguments[0])
     document.querySelector('[role=grid]').dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }))`,
    text,
  )

export const copied = (visitor: Visitor) =>
  visitor.driver.executeScript<string>(
    `const data = new DataTransfer()
     document.querySelector('[role=grid]').dispatchEvent(new ClipboardEvent('copy', { clipboardData: data, bubbles: true, cancelable: true }))
     return data.getData('text/plain')`,
  )
