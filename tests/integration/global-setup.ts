/** One PostgreSQL for all integration tests, and a migrated template that each file copies. */
import { mkdtempSync, rmSync } from 'node:fs'
import { join } from 'node:path'
import { tmpdir } from 'node:os'
import type { TestProject } from 'vitest/node'
import { dataFolder, startServer } from '../../scripts/lib/postgres.mjs'
import { connect } from '../../server/db/client'
import { migrationFiles } from '../../server/db/files'
import { migrate } from '../../server/db/migrate'
import { firstPeople } from '../../server/records/shop/people'

declare module 'vitest' {
  export interface ProvidedContext {
    adminUrl: string
    template: string
  }
}

export default async function setup(project: TestProject) {
  const folder = dataFolder(mkdtempSync(join(tmpdir(), 'iron-nozzle-')), '/var/lib/iron-nozzle-tests')
  const server = await startServer({ folder, fast: true })
  const template = 'template_iron_nozzle'
  server.dropDatabase(template)
  server.createDatabase(template)
  const { client, db } = connect(server.url(template), { max: 1 })
  await migrate(client, migrationFiles())
  await firstPeople(db)
  await client.end()
  project.provide('adminUrl', server.url('postgres'))
  project.provide('template', template)
  return async () => {
    await server.stop()
    rmSync(folder, { recursive: true, force: true })
  }
}
