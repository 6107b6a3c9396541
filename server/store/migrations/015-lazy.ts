import type { Migration } from './list.ts'

/**
 * A workspace is not read before it is asked for: what leads to it from outside (an account, an address, a link) is found
 * by an index, and when something of it is due stands beside how far its history has come.
 */
const statements = [
  'ALTER TABLE "appliedTransitions" ADD COLUMN "dueAt" BIGINT',
  'CREATE INDEX "personsAccount" ON persons (account)',
  'CREATE INDEX "personsMail" ON persons (lower(mail))',
  'CREATE INDEX "invitationsId" ON invitations (id)',
  'CREATE INDEX "joinLinksId" ON "joinLinks" (id)',
]

export const lazy: Migration = {
  name: '015-lazy',
  up: async database => {
    for (const statement of statements) await database.query(statement)
  },
}
