/**
 * The moment of printing, for the cautions: temperatures as they will be reached, not as they are wished for, with the
 * parts that are there and what the filament stands on. One function for Equip, Soak and the check before a run. °C.
 */
import { checkStack, onSheet, type Demand, type Rules, type Stack } from '../limits'
import { SOCK_OFF, type Moment } from './catalogue'

/** What is printed and stands on this stack; polymer and filler from the demand. */
export function printing(stack: Stack, demand: Demand, rules: Rules): Moment {
  const { op, lines } = checkStack(stack, demand, rules)
  const parts = stack.groups.flatMap(g => g.parts)
  const roles: string[] = parts.map(p => p.role)
  if (lines.some(l => l.part?.role === 'sock' && l.status === 'short')) roles.push(SOCK_OFF)
  const sheets = parts.flatMap(p => (p.role === 'sheet' && p.details.surface ? [p.details.surface] : []))
  const between = sheets.flatMap(s => onSheet(demand.surfaces ?? [], s)).flatMap(s => (s.adhesive ? [s.adhesive] : []))
  const air = stack.air.enclosure ? [op.air.low, op.air.high] : []
  const hottest = Math.max(-Infinity, ...air.flatMap(a => (a ? [a.c] : [])))
  return {
    action: 'print',
    polymers: demand.polymer === null ? [] : [demand.polymer],
    fillers: demand.filler === null ? [] : [demand.filler],
    nozzleC: op.nozzle?.trueC ?? null,
    bedC: op.bed?.trueC ?? null,
    chamberC: hottest > -Infinity ? hottest : null,
    heated: op.heater !== null,
    roles,
    surfaces: [...sheets, ...between],
  }
}
