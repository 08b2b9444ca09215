<script setup lang="ts">
/** A drying that begins: how hot, how long, and what that leaves by the model. */
import type { DryerRow } from '#shared/answers/prepare'
import type { SpoolPage } from '#shared/answers/spools'
import { computed } from 'vue'
import type { Caution } from '#core/cautions'
import {
  DRYING_C,
  dryingRefusal,
  leftAfter,
  type DryingLimits,
  type DryingPlan,
  type Filament,
  type SpoolWater,
} from '#core/drying'
import { water } from '#core/words'
import { untilWords } from '#shared/time'
import EntrySheet from '~/components/entry/EntrySheet.vue'
import CautionList from '~/components/equip/CautionList.vue'
import BalanceField from '~/components/prepare/BalanceField.vue'
import FieldNumber from '~/components/ui/FieldNumber.vue'
import FieldText from '~/components/ui/FieldText.vue'
import FieldWhen from '~/components/ui/FieldWhen.vue'
import { useEntrySheet } from '~/composables/entry-sheet'
import { useShop } from '~/state/shop'

const props = defineProps<{
  /** The dryer and its plan; null while nothing is started. */
  row: { dryer: DryerRow; plan: DryingPlan | null } | null
  page: SpoolPage
  filament: Filament
  state: SpoolWater
  limits: DryingLimits
  /** Water to come down to, wt%. */
  target: number | null
  cautions: readonly Caution[]
}>()
const emit = defineEmits<{ close: [] }>()
const shop = useShop()
/** Hours that are proposed where no plan tells any. */
const USUAL_H = 8

const sheet = useEntrySheet('/api/dryings', {
  on: () => props.row,
  name: r => `${props.page.state.id} ${r.dryer.id}`,
  start: ({ plan }) => ({
    setC: plan?.atC ?? null,
    plannedH:
      plan && Number.isFinite(plan.to.planH) && plan.to.planH > 0
        ? Math.ceil(plan.to.planH * 2) / 2
        : (USUAL_H as number | null),
    grossG: null as number | null,
    note: '',
    occurredAt: new Date().toISOString(),
  }),
  body: (v, r) => ({ spoolId: props.page.state.id, dryerId: r.dryer.id, targetWt: props.target, ...v }),
  says: (_, r) => `Dry ${props.page.state.tag} in ${r.dryer.name}`,
  saved: (done, _, r) => {
    const { tag } = props.page.state
    return untilWords(
      { is: `${tag} dries in ${r.dryer.name}`, then: 'The timer goes on when this page is closed.' },
      { was: `${tag} had its hours in ${r.dryer.name}`, now: 'weigh it and end the drying.' },
      done.until,
      shop.zone,
    )
  },
  close: () => emit('close'),
})
const refusal = computed(() =>
  props.row && sheet.v.setC !== null && !Number.isNaN(sheet.v.setC)
    ? dryingRefusal(sheet.v.setC, props.row.dryer, props.limits)
    : null,
)
/** What the entered temperature and hours would leave. */
const leaves = computed(() => {
  const { setC, plannedH } = sheet.v
  if (!props.row || refusal.value || setC === null || plannedH === null) return null
  if (!(setC >= DRYING_C[0] && setC <= DRYING_C[1] && plannedH > 0)) return null
  const room = { airC: props.page.air.roomC, rh: props.page.air.roomRh }
  return leftAfter(props.state, props.filament, props.row.dryer.kind, setC, plannedH, room, props.page.wound)
})
</script>

<template>
  <EntrySheet
    :sheet="sheet"
    :title="row ? `Dry ${page.state.tag} in ${row.dryer.name}` : ''"
    action="Start drying"
    give-up="Not now"
    :shown="['setC', 'plannedH', 'occurredAt', 'grossG', 'note']"
  >
    <div class="grid gap-3 sm:grid-cols-2">
      <FieldNumber
        id="dry-c"
        v-model="sheet.v.setC"
        label="Set to"
        unit="°C"
        :error="sheet.errors.setC ?? refusal ?? undefined"
      />
      <FieldNumber id="dry-h" v-model="sheet.v.plannedH" label="Planned for" unit="h" :error="sheet.errors.plannedH" />
      <FieldWhen id="dry-when" v-model="sheet.v.occurredAt" label="Began" :error="sheet.errors.occurredAt" />
      <BalanceField
        id="dry-gross"
        v-model="sheet.v.grossG"
        class="sm:col-span-2"
        label="Weighs before, with its spool"
        :spool-id="page.state.id"
        hint="weigh before and after, and the shop's own factor is fitted"
        :error="sheet.errors.grossG"
      />
    </div>
    <p v-if="leaves" role="status">
      By the model this leaves {{ water(leaves.wound) }} on the wound spool, {{ water(leaves.strand) }} in a single
      strand.
    </p>
    <FieldText id="dry-note" v-model="sheet.v.note" label="Note" :error="sheet.errors.note" />
    <CautionList :cautions="cautions" title="When you dry" />
  </EntrySheet>
</template>
