/** What the check before a run says of the spool's water. */
import type { DryTime } from '#core/drying'
import { FOR_GOOD_H, water } from '#core/words'
import type { precheckSchema } from '#shared/entries/prepare'
import type { SpoolState } from '#shared/answers/spools'
import type { z } from 'zod'

type Place = z.output<typeof precheckSchema>['printsFrom']
type Water = NonNullable<SpoolState['water']>
/** How long it stays below what usually prints, and clean, where it will stand while it prints. */
export function drynessIn(place: Place, water: Water): { usual: DryTime; clean: DryTime } {
  if (place === 'dryer') return { usual: stayDry(water.dryness !== 'wet'), clean: stayDry(water.dryness === 'clean') }
  return place === 'room'
    ? { usual: water.inRoom, clean: water.cleanInRoom }
    : { usual: water.inBox, clean: water.cleanInBox }
}
export function drynessMissing(tag: string | null, state: SpoolState | null, material: string): string {
  if (tag === null) return 'No spool is chosen, so how dry it is is not known.'
  if (state && state.problem !== null) return `${state.problem}.`
  if (state?.place === 'sealed')
    return `${tag} was never opened in the log; nobody knows how long it lay before it was sealed.`
  if (state?.water && !state.water.dried)
    return `${tag} was never dried in the log; nobody knows what it held when it came.`
  if (state?.water)
    return (
      `${tag} may hold between ${water(state.water.low)} and ${water(state.water.wound)}; it usually prints up to ` +
      `${water(state.water.usual)}.`
    )
  return `How ${material} takes up water is not known.`
}

/** From the dryer itself it stays as dry as it is; a wet spool is wet there too. */
const stayDry = (dry: boolean) => (dry ? { strandH: FOR_GOOD_H, woundH: FOR_GOOD_H } : { strandH: 0, woundH: 0 })
