import { readdirSync, readFileSync, statSync } from 'node:fs'
import { resolve } from 'node:path'
import ts from 'typescript'
import { expect, test } from 'vitest'

/** One word a thing (docs/glossary.md): those that were given up come back in nothing that people read. */

const root = resolve(import.meta.dirname, '..')

/** Where the sentences stand that people read: screens, refusals, history, notifications, mails. */
const read = [
  'web',
  'core/words',
  'contract/problem.ts',
  'server/http/fault-words.ts',
  'server/mail',
  'server/services',
]
  .flatMap(path =>
    statSync(resolve(root, path)).isFile()
      ? [path]
      : readdirSync(resolve(root, path), { recursive: true, encoding: 'utf8' }).map(
          name => `${path}/${name}`,
        ),
  )
  .filter(path => /\.tsx?$/.test(path) && !path.includes('.test.'))

const retired = [
  /\bgather(ed)?\b/i,
  /\bways in\b/i,
  /kept to me|opened for (me|you)/i,
  /\bnotices?\b/i,
  /\bsecond step\b/i,
  /\brung\b/i,
  /reaches far/i,
  /side by side/i,
  /comes? from above\b/i,
  /follows? (again|what)/i,
  /br(ing|ought) in\b/i,
  /fold (it )?away/i,
  /leave it\b/i,
  /\blooks? through/i,
  /\banew\b/i,
  /\basked for\b/i,
  /\blet in\b/i,
  /tak(e|en) out\b/i,
  /put in(to)?\b/i,
  /\bwhoever\b/i,
  /what i am told/i,
  /through (somebody|their|my|your)’?s? eyes/i,
  /long absent|time over/i,
  /\bmake a (team|role|level|shared home)\b/i,
]

/** Attributes that no one reads. */
const unread = new Set(['className', 'type', 'id', 'htmlFor', 'role', 'key', 'to', 'scope', 'rel', 'd'])

test.each(read)('%s is in the words of the glossary', path => {
  const told = wordsIn(path).filter(words => retired.some(each => each.test(words)))
  expect(told).toEqual([])
})

/** What stands in a file as a sentence or a label: text of elements, and strings with a blank or a capital. */
function wordsIn(path: string): string[] {
  const text = readFileSync(resolve(root, path), 'utf8')
  const kind = path.endsWith('x') ? ts.ScriptKind.TSX : ts.ScriptKind.TS
  const words: string[] = []
  const visit = (node: ts.Node): void => {
    if (ts.isImportDeclaration(node) || ts.isLiteralTypeNode(node)) return
    if (ts.isJsxAttribute(node) && unread.has(node.name.getText())) return
    if (ts.isJsxText(node)) words.push(node.text.replace(/\s+/g, ' ').trim())
    else if (ts.isStringLiteral(node) || ts.isTemplateLiteralToken(node)) {
      if (/^[A-Z](?![A-Z])|\s\S+\s/.test(node.text) && !isStatement(node.text) && !isKey(node))
        words.push(node.text)
    }
    ts.forEachChild(node, visit)
  }
  visit(ts.createSourceFile(path, text, ts.ScriptTarget.Latest, true, kind))
  return words
}

const isStatement = (text: string) => /^(SELECT|INSERT|UPDATE) /.test(text)

/** Names of rights, kinds and filters are written like words, and looked up or compared: nobody reads them. */
function isKey(node: ts.Node): boolean {
  const { parent } = node
  return (
    (ts.isPropertyAssignment(parent) &&
      (parent.name === node || /^(kind|needs|value|code)$/.test(parent.name.getText()))) ||
    ts.isCaseClause(parent) ||
    ts.isBinaryExpression(parent) ||
    ts.isArrayLiteralExpression(parent)
  )
}
