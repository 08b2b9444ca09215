<script setup lang="ts">
/** The numbers of a plan: box, bed, heat, gaps and vent, chamber heater; and its walls. */
import { BED_UNDER } from '#core/chamber'
import { options } from '~/components/verify/check-form'
import { wallsOf, type PlanForm, type PlanNumber } from '~/components/verify/plan-form'
import WallFields from '~/components/verify/WallFields.vue'
import FieldNumber from '~/components/ui/FieldNumber.vue'
import FieldSelect from '~/components/ui/FieldSelect.vue'

defineProps<{ errors: Record<string, string | undefined> }>()
const v = defineModel<PlanForm>({ required: true })
type Row = [key: PlanNumber, label: string, unit: string, at: string, hint?: string]
const BOX: Row[] = [
  ['widthMm', 'Inside, wide', 'mm', 'size.widthMm'],
  ['depthMm', 'deep', 'mm', 'size.depthMm'],
  ['heightMm', 'high', 'mm', 'size.heightMm'],
]
const HEAT: Row[] = [
  ['bedC', 'Bed at', '°C', 'bed.setC'],
  ['bedM2', 'Bed area', 'm²', 'bed.areaM2'],
  ['bedW', 'Bed heater', 'W', 'bed.powerW', 'its nameplate'],
  ['nozzleW', 'Hotend gives off', 'W', 'nozzleW', 'about 15'],
  ['roomC', 'Room', '°C', 'roomC'],
  ['insideKg', 'Metal inside', 'kg', 'insideKg', 'that warms with the air'],
]
const AIR: Row[] = [
  ['gapMm2', 'Gaps now', 'mm²', 'gapMm2', 'doors, lid, cables'],
  ['gapThenMm2', 'Gaps as planned', 'mm²', 'gapThenMm2'],
  ['ventLMin', 'Fan draws out', 'l/min', 'ventLMin', 'as planned'],
]
const HEATER: Row[] = [
  ['heaterW', 'Chamber heater', 'W', 'heaterW', '0: none'],
  ['heaterSetC', 'set to', '°C', 'heaterSetC', 'empty: not used'],
  ['cutOutC', 'its cut-out opens at', '°C', 'cutOutC', 'empty: it has none'],
]
const GROUPS: { name: string; rows: Row[] }[] = [
  { name: 'Heat', rows: HEAT },
  { name: 'Air that leaves', rows: AIR },
  { name: 'Chamber heater', rows: HEATER },
]
/** Areas of six plain walls, as the size says. */
function measure(): void {
  const { widthMm, depthMm, heightMm } = v.value
  if (!widthMm || !depthMm || !heightMm) return
  const plain = wallsOf({ widthMm, depthMm, heightMm })
  for (const w of v.value.walls) {
    const same = plain.find(p => p.name === w.name)
    if (same) w.areaM2 = same.areaM2
  }
}
</script>

<template>
  <div class="grid grid-cols-[minmax(0,1fr)] gap-4">
    <fieldset class="grid grid-cols-3 items-start gap-3">
      <legend class="mb-1 text-[15px] font-[680]">Box</legend>
      <FieldNumber
        v-for="[key, label, unit, at] in BOX"
        :id="`plan-${key}`"
        :key="key"
        v-model="v[key]"
        :label="label"
        :unit="unit"
        :error="errors[at]"
      />
      <p class="col-span-3">
        <button type="button" class="button" @click="measure">Take the walls’ areas from it</button>
      </p>
    </fieldset>
    <WallFields v-model="v.walls" :errors="errors" />
    <fieldset v-for="g in GROUPS" :key="g.name" class="grid grid-cols-2 items-start gap-3 sm:grid-cols-3">
      <legend class="mb-1 text-[15px] font-[680]">{{ g.name }}</legend>
      <FieldNumber
        v-for="[key, label, unit, at, hint] in g.rows"
        :id="`plan-${key}`"
        :key="key"
        v-model="v[key]"
        :label="label"
        :unit="unit"
        :hint="hint"
        :error="errors[at]"
      />
      <template v-if="g.name === 'Heat'">
        <FieldSelect
          id="plan-under"
          v-model="v.under"
          label="Under the bed"
          :options="options(BED_UNDER)"
          :error="errors['bed.under']"
        />
      </template>
      <FieldSelect
        v-if="g.name === 'Air that leaves'"
        id="plan-stirred"
        v-model="v.stirred"
        label="A fan stirs the air inside"
        :options="[
          { value: false, text: 'no' },
          { value: true, text: 'yes' },
        ]"
      />
      <template v-if="g.name === 'Chamber heater'">
        <FieldSelect
          id="plan-heater-now"
          v-model="v.heaterNow"
          label="Heater is"
          :options="[
            { value: false, text: 'planned' },
            { value: true, text: 'there already' },
          ]"
        />
        <FieldNumber
          id="plan-targetC"
          v-model="v.targetC"
          label="Wanted near bed and head"
          unit="°C"
          hint="its power is told"
        />
      </template>
    </fieldset>
  </div>
</template>
