/** Pins of the shop by their marks: what each is marked, and what a gauge made with it counts as. */
import { computed } from 'vue'
import { BORE_MM, countedPin } from '#core/wear'
import { mmNumber } from '#core/words'
import { useAnswer } from '~/composables/answer'

export function usePins() {
  const { data: pins } = useAnswer('/api/pins')
  /** Marks that a form offers. */
  const marks = computed(() => (pins.value ?? []).filter(p => !p.withdrawn).map(p => p.mark))
  const pinOf = (mark: string) => pins.value?.find(p => p.mark.toLowerCase() === mark.trim().toLowerCase()) ?? null
  const nominalOf = (mark: string): number | null => pinOf(mark)?.nominalMm ?? null
  /** By its certificates, at the time of the gauge; null where they leave it as it is typed. */
  function certified(mark: string, typedMm: number | null, at: string): number | null {
    const pin = pinOf(mark)
    if (pin === null || typedMm === null || !(typedMm >= BORE_MM[0] && typedMm <= BORE_MM[1])) return null
    const atMs = Date.parse(at)
    if (Number.isNaN(atMs)) return null
    const certificates = pin.certificates
      .filter(c => c.struck === null)
      .map(c => ({ atMs: Date.parse(c.at), sizeMm: c.sizeMm, uMm: c.uMm }))
    return countedPin({ nominalMm: pin.nominalMm, certificates }, typedMm, atMs)?.sizeMm ?? null
  }
  const hint = (countsMm: number | null, typedMm: number | null) =>
    countsMm === null || countsMm === typedMm ? undefined : `by its certificate ${mmNumber(countsMm)} mm`
  return { marks, nominalOf, certified, hint }
}
