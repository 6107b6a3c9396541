import { readFileSync } from 'node:fs'
import { resolve } from 'node:path'
import { parseArgs } from 'node:util'
import { readConfig } from '../config.ts'
import { backUp } from './backup.ts'
import { restore } from './restore.ts'

// What is written is nobody else's on this machine.
process.umask(0o077)

const options = {
  passphrase: { type: 'string' },
  secret: { type: 'string' },
  replace: { type: 'boolean', default: false },
  demo: { type: 'boolean', default: false },
} as const

const usage = `npm run backup -- FILE --passphrase FILE-WITH-IT      all in one file, the secret sealed
npm run backup -- FILE --secret FILE-FOR-IT           the secret apart, to be kept elsewhere
npm run restore -- FILE --passphrase FILE | --secret FILE [--replace]
DATA_DIR says of which folder, or into which; with --demo it is the demo's.`

try {
  await run()
} catch (error) {
  process.stderr.write(`${(error as Error).message}\n`)
  process.exitCode = 1
}

async function run(): Promise<void> {
  const { values, positionals } = parseArgs({ options, allowPositionals: true })
  const [what, named, more] = positionals
  const file = named === undefined ? undefined : here(named)
  const { dataDir } = readConfig(process.env, values.demo)
  const passphrase = values.passphrase === undefined ? undefined : passphraseIn(here(values.passphrase))
  if (file === undefined || more !== undefined) throw new Error(usage)
  if (what === 'backup') {
    if ((passphrase === undefined) === (values.secret === undefined)) throw new Error(usage)
    const secretTo = passphrase === undefined ? { file: here(values.secret ?? '') } : { passphrase }
    const { files } = await backUp(dataDir, file, secretTo)
    const bytes = Object.values(files).reduce((sum, each) => sum + each.bytes, 0)
    process.stdout.write(
      `${file} holds ${dataDir} (${(bytes / 2 ** 20).toFixed(1)} MiB unpacked) and was read back.\n`,
    )
    return
  }
  const { manifest, aside } = await restore(file, dataDir, {
    replaces: values.replace,
    ...(passphrase === undefined ? {} : { passphrase }),
    ...(values.secret === undefined ? {} : { secretFile: here(values.secret) }),
  })
  process.stdout.write(`${dataDir} is as it was at ${manifest.madeAt}.\n`)
  if (aside !== null) process.stdout.write(`What was there before lies in ${aside}.\n`)
}

/** npm runs scripts in the project's folder, wherever it was asked to. */
function here(path: string): string {
  return resolve(process.env.INIT_CWD ?? '', path)
}

function passphraseIn(file: string): string {
  const passphrase = readFileSync(file, 'utf8').replace(/\r?\n$/, '')
  if (passphrase.length < 12) throw new Error(`The passphrase in ${file} has less than 12 characters.`)
  return passphrase
}
