<script setup lang="ts">
/** Probes of a survey: placed by a press on the drawing, or by typed x, y and z. */
import { computed } from 'vue'
import { MOST_PROBES, SIZE_MM, type ProbeFound } from '#core/chamber'
import { AIR_PLACES, PLACE_WORDS } from '#core/limits'
import { options } from '~/components/verify/check-form'
import ChamberDrawing from '~/components/verify/ChamberDrawing.vue'
import { addProbe, removeProbe, type SurveyForm } from '~/components/verify/survey-form'
import FieldNumber from '~/components/ui/FieldNumber.vue'
import FieldSelect from '~/components/ui/FieldSelect.vue'
import FieldText from '~/components/ui/FieldText.vue'
import { steadyWords } from '~/words/chamber'

const props = defineProps<{
  errors: Record<string, string | undefined>
  /** What each probe comes to as it stands, by its order; empty while something is half typed. */
  found: readonly ProbeFound[]
  /** A thermometer is connected. */
  channels: boolean
}>()
const v = defineModel<SurveyForm>({ required: true })
const chosen = defineModel<number>('chosen', { required: true })
const SIZES = [
  ['widthMm', 'Chamber inside, wide'],
  ['depthMm', 'deep'],
  ['heightMm', 'high'],
] as const
const drawn = computed(() => {
  const { widthMm, depthMm, heightMm } = v.value
  const ok = (n: number | null) => n !== null && n >= SIZE_MM[0] && n <= SIZE_MM[1]
  return ok(widthMm) && ok(depthMm) && ok(heightMm)
    ? { widthMm: widthMm!, depthMm: depthMm!, heightMm: heightMm! }
    : null
})
const CHANNELS = [...options([1, 2, 3, 4], c => `channel ${c}`), { value: null, text: 'none' }]
function place(at: { xMm: number; yMm?: number; zMm?: number }): void {
  const p = v.value.probes[chosen.value]
  if (p) Object.assign(p, at)
}
function add(): void {
  addProbe(v.value)
  chosen.value = v.value.probes.length - 1
}
</script>

<template>
  <fieldset class="grid grid-cols-[minmax(0,1fr)] gap-3">
    <legend class="label">Probes: hung in the air, in the shade of the bed</legend>
    <div class="grid grid-cols-3 gap-3">
      <FieldNumber
        v-for="[k, label] in SIZES"
        :id="`survey-${k}`"
        :key="k"
        v-model="v[k]"
        :label="label"
        unit="mm"
        :error="errors[`size.${k}`]"
      />
    </div>
    <ChamberDrawing
      v-if="drawn"
      :size="drawn"
      :probes="v.probes"
      :chosen="chosen"
      placing
      label="The chamber: press where the chosen probe hangs"
      @place="place"
    />
    <p class="text-xs text-ink2">
      Press on either view to place {{ v.probes[chosen]?.name ?? 'a probe' }}, or type its x (from the left), y (from
      the front) and z (over the bed).
    </p>
    <div
      v-for="(p, i) in v.probes"
      :key="i"
      class="grid grid-cols-2 items-start gap-2 border-t border-rule pt-2 sm:grid-cols-[90px_minmax(0,1fr)_repeat(3,80px)_110px]"
      role="group"
      :aria-label="`Probe ${i + 1}`"
      @focusin="chosen = i"
      @pointerdown="chosen = i"
    >
      <FieldText
        :id="`survey-name-${i}`"
        v-model="p.name"
        :label="i === chosen ? '▸ Probe' : 'Probe'"
        :error="errors[`probes.${i}.name`]"
      />
      <FieldSelect
        :id="`survey-place-${i}`"
        v-model="p.place"
        label="Air it measures"
        :options="options(AIR_PLACES, x => PLACE_WORDS[x])"
        :error="errors[`probes.${i}.place`]"
      />
      <FieldNumber
        v-for="k in ['xMm', 'yMm', 'zMm'] as const"
        :id="`survey-${k}-${i}`"
        :key="k"
        v-model="p[k]"
        :label="k[0]!"
        unit="mm"
        :error="errors[`probes.${i}.${k}`]"
      />
      <FieldSelect
        v-if="channels"
        :id="`survey-channel-${i}`"
        v-model="p.channel"
        label="Channel"
        :options="CHANNELS"
      />
      <p class="col-span-2 flex flex-wrap items-center gap-x-3 text-sm sm:col-span-6">
        <span v-if="found[i]" :class="found[i].value === null ? 'font-semibold text-look' : ''">{{
          `${p.name}: ${steadyWords(found[i])}.`
        }}</span>
        <button
          v-if="v.probes.length > 1"
          type="button"
          class="button plain"
          :aria-label="`Take probe ${p.name} out`"
          @click="removeProbe(v, i)"
        >
          Take it out
        </button>
      </p>
    </div>
    <div class="flex flex-wrap items-end gap-3">
      <button type="button" class="button" :disabled="v.probes.length >= MOST_PROBES" @click="add">Add a probe</button>
      <FieldSelect
        v-if="channels"
        id="survey-channel-room"
        v-model="v.roomChannel"
        label="The room is on"
        :options="CHANNELS"
      />
    </div>
    <p v-if="props.errors.probes" class="text-sm font-semibold text-stop" role="alert">{{ props.errors.probes }}</p>
  </fieldset>
</template>
