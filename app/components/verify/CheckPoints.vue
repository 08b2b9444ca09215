<script setup lang="ts">
/** The points of a sensor check: what the printer shows, what the reference reads, one row each. */
import { SAME_POINT_C, type CheckResult, type Reference } from '#core/thermometry'
import { emptyPoint, isEmpty, type TypedPoint } from '~/components/verify/check-form'
import FieldNumber from '~/components/ui/FieldNumber.vue'
import { rangeOf, readsWords } from '~/words/sensor'

const props = defineProps<{
  reference: Reference | null
  /** Errors by `points.0.reading`, counted over the rows in which something stands. */
  errors: Record<string, string | undefined>
  result: CheckResult | null
  /** What the printer shows now; null when it is not heard. */
  nowC: number | null
  /** The thermometer's channel that can be read; null where none is connected, or the reference does not read in °C. */
  channel: number | null
}>()
defineEmits<{ read: [point: number] }>()
/** What is typed. */
const points = defineModel<TypedPoint[]>({ required: true })
function errorAt(i: number, field: keyof TypedPoint): string | undefined {
  if (isEmpty(points.value[i]!)) return undefined
  return props.errors[`points.${points.value.slice(0, i).filter(p => !isEmpty(p)).length}.${field}`]
}
function takeNow(i: number): void {
  if (props.nowC !== null) points.value[i]!.shownC = Math.round(props.nowC * 10) / 10
}
const resultAt = (p: TypedPoint) =>
  props.result?.points.find(r => p.shownC !== null && Math.abs(r.shownC - p.shownC) <= SAME_POINT_C) ?? null
</script>

<template>
  <fieldset class="grid gap-2">
    <legend class="label">Points: wait until both stand still, then read both. As hot as the work goes, too</legend>
    <div
      v-for="(p, i) in points"
      :key="i"
      class="grid grid-cols-2 items-start gap-2 border-t border-rule pt-2 sm:grid-cols-4"
      role="group"
      :aria-label="`Point ${i + 1}`"
    >
      <div>
        <FieldNumber
          :id="`check-shown-${i}`"
          v-model="p.shownC"
          :label="`${i + 1}: printer shows`"
          unit="°C"
          :error="errorAt(i, 'shownC')"
        />
        <button
          v-if="nowC !== null"
          type="button"
          class="button plain"
          :aria-label="`Take what it shows now as point ${i + 1}`"
          @click="takeNow(i)"
        >
          now {{ nowC.toFixed(1) }} °C
        </button>
      </div>
      <div>
        <FieldNumber
          :id="`check-reading-${i}`"
          v-model="p.reading"
          label="Reference reads"
          :unit="reference?.readsIn ?? ''"
          :error="errorAt(i, 'reading')"
        />
        <button
          v-if="channel !== null"
          type="button"
          class="button plain"
          :aria-label="`Read channel ${channel} as point ${i + 1}`"
          @click="$emit('read', i)"
        >
          read channel {{ channel }}
        </button>
      </div>
      <FieldNumber
        v-if="reference?.kind === 'thermocouple'"
        :id="`check-cold-${i}`"
        v-model="p.coldC"
        label="Cold junction"
        unit="°C"
        :hint="reference.readsIn === 'mV' ? 'beside the terminals' : 'if known'"
        :error="errorAt(i, 'coldC')"
      />
      <FieldNumber
        :id="`check-swing-${i}`"
        v-model="p.swingC"
        label="Reading swings by ±"
        unit="°C"
        hint="empty: it stood still"
        :error="errorAt(i, 'swingC')"
      />
      <p v-if="resultAt(p)" class="col-span-2 text-sm sm:col-span-4" role="status">
        In truth {{ resultAt(p)!.trueC.toFixed(1) }} °C: it {{ readsWords(resultAt(p)!.cC) }},
        {{ rangeOf(resultAt(p)!) }}.
      </p>
    </div>
    <p><button type="button" class="button" @click="points.push(emptyPoint())">Add a point</button></p>
    <p v-if="errors.points" class="text-sm font-semibold text-stop" role="alert">{{ errors.points }}</p>
  </fieldset>
</template>
