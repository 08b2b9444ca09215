/** A shop that is being set up: without a printer, a nozzle or a spool no question can be answered. */
import type { ShopData } from '~/state/shop'

export const isBeingSetUp = (d: ShopData | null): boolean =>
  d !== null && [d.printers, d.nozzles, d.spools].some(l => l.length === 0)
