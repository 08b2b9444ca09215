/**
 * What a check before a run is of, in the address: Back, a reload and a link keep it. Names where there are names, so
 * that a link reads as what it is; what was looked at and answered is not in it, and is asked of whoever opens it.
 */
import type { Check } from '~/state/check'
import type { ShopData } from '~/state/shop'

type Query = Record<string, unknown>
const FROM = ['room', 'dry box', 'dryer'] as const satisfies readonly Check['printsFrom'][]

/** Without what is as it would be anyway. */
export function addressOf(v: Check, shop: ShopData): Record<string, string> {
  const printer = shop.printers.find(p => p.id === v.printerId)
  const head = printer && printer.heads.length > 1 ? printer.heads.find(h => h.id === v.headId) : undefined
  const spool = shop.spools.find(s => s.id === v.spoolId)
  const filament = v.spoolId === null ? shop.materials.find(m => m.id === v.materialId) : undefined
  const said: [string, string | number | undefined | null][] = [
    ['printer', printer?.name],
    ['head', head?.name],
    ['spool', spool?.tag],
    ['filament', filament?.name],
    ['from', v.printsFrom === 'room' ? null : v.printsFrom],
    ['job', v.jobId],
    ['tool', v.tool === 0 ? null : v.tool],
    ['hours', v.hours],
    ['nozzle', v.nozzleC],
    ['bed', v.bedC],
    ['chamber', v.chamberC],
  ]
  return Object.fromEntries(said.flatMap(([k, x]) => (x === undefined || x === null ? [] : [[k, String(x)]])))
}

/** What an address says; what is not known in this shop is left out. */
export function saidIn(query: Query, shop: ShopData): Partial<Check> {
  const text = (key: string) => (typeof query[key] === 'string' ? query[key] : null)
  const number = (key: string) => {
    const n = text(key)?.trim() ? Number(text(key)) : NaN
    return Number.isFinite(n) ? n : null
  }
  const printer = shop.printers.find(p => p.name === text('printer'))
  const spool = shop.spools.find(s => s.tag === text('spool'))
  const material = spool ? undefined : shop.materials.find(m => m.name === text('filament'))
  const [tool, job] = [number('tool'), number('job')]
  const said: { [K in keyof Check]?: Check[K] | null | undefined } = {
    printerId: printer?.id,
    headId: printer?.heads.find(h => h.name === text('head'))?.id,
    spoolId: spool?.id,
    materialId: spool?.materialId ?? material?.id,
    printsFrom: FROM.find(f => f === text('from')),
    jobId: job !== null && Number.isInteger(job) && job > 0 ? job : null,
    tool: tool !== null && Number.isInteger(tool) && tool >= 0 ? tool : null,
    hours: number('hours'),
    nozzleC: number('nozzle'),
    bedC: number('bed'),
    chamberC: number('chamber'),
  }
  const known = Object.entries(said).filter(([, x]) => x !== null && x !== undefined)
  return { ...(Object.fromEntries(known) as Partial<Check>), ...(material && { spoolId: null }) }
}
