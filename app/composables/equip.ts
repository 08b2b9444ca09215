/** Everything the screens of Equip share: one reading from the server, and the verdicts worked out from it here. */
import { computed } from 'vue'
import { compile, compileFleet, type Compiled, type Filament, type Offers, type Printer } from '#core/limits'
import { demandsOf } from '~/lib/changes'
import { useAnswer } from '~/composables/answer'

export function useEquip() {
  const { data, failure } = useAnswer('/api/equip')
  const offers = computed<Offers>(() => ({
    shelf: data.value?.shelf ?? [],
    nozzles: data.value?.nozzles ?? [],
    prices: data.value?.prices ?? {},
  }))
  const filaments = computed<Filament[]>(() =>
    (data.value?.materials ?? []).map(m => ({ name: m.name, demands: demandsOf(m) })),
  )
  const fleet = computed<Compiled[][]>(() =>
    data.value ? compileFleet(data.value.printers, offers.value, data.value.rules) : [],
  )
  const compiled = (printer: Printer, headId: number) => compile(printer, headId, offers.value, data.value!.rules)
  return { data, failure, offers, filaments, fleet, compiled }
}
