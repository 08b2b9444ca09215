/** A spec that changes a shop so much that others would not know it again: one of its own, with stand-ins. */
import { freePort } from '../../scripts/lib/postgres.mjs'
import { serve, standIns } from './global-setup'
import { type OWN_DATABASE, ownDatabase, test as base } from './support'

/** `test` on the copy of that name; with `shop: true` on the worker's empty shop as ever. */
export function onOwnDemo(spec: (typeof OWN_DATABASE)[number]) {
  let children: { kill: (signal: 'SIGTERM') => unknown }[] = []
  let port = 0
  base.beforeAll(async () => {
    const sim = await standIns()
    port = await freePort()
    children = [sim.child, await serve(await ownDatabase(spec), port, sim.env)]
  })
  base.afterAll(() => {
    for (const c of children) c.kill('SIGTERM')
  })
  return base.extend({
    baseURL: async ({ shop, baseURL }, use) => {
      await use(shop ? baseURL : `http://127.0.0.1:${port}`)
    },
  })
}
