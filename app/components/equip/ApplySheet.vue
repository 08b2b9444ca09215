<script setup lang="ts">
/** Applies what was tried: one change with its date, the hazards of the work, and the facts of a nozzle swap. */
import { zoneWord } from '#core/words'
import { computed, ref, watch } from 'vue'
import { cautionsFor, type Action, type Caution } from '#core/cautions'
import { HOT_YIELD_MPA, swapTemperature, torqueCeiling, zChange } from '#core/changeover'
import { ceilings, type FittedNozzle, type Printer, type Rules, type Swap } from '#core/limits'
import CautionList from '~/components/equip/CautionList.vue'
import FieldText from '~/components/ui/FieldText.vue'
import FieldWhen from '~/components/ui/FieldWhen.vue'
import ModalSheet from '~/components/ui/ModalSheet.vue'
import QuestionBox from '~/components/ui/QuestionBox.vue'
import { useEntryForm } from '~/composables/entry-form'
import { changeOf } from '~/lib/changes'
import { useUi } from '~/state/ui'

const props = defineProps<{
  open: boolean
  printer: Printer
  headId: number
  swaps: readonly Swap[]
  rules: Rules
  through: readonly { name: string; swapC: number | null }[]
  channelMm: number
}>()
const emit = defineEmits<{ close: []; applied: [] }>()
const ui = useUi()
const form = useEntryForm('/api/changes')
const text = ref('')
const when = ref(new Date().toISOString())
watch(
  () => props.open,
  open => {
    if (!open) return
    form.reset()
    text.value = props.swaps
      .map(s => s.text)
      .join('; ')
      .slice(0, 2000)
    when.value = new Date().toISOString()
  },
)
const plan = computed(() => changeOf(props.printer, props.headId, props.swaps))
const oldNozzle = computed(() => props.printer.heads.find(h => h.id === props.headId)?.nozzle ?? null)
const newNozzle = computed(() => props.swaps.find(s => s.role === 'nozzle')?.add[0] as FittedNozzle | undefined)
const ceiling = computed(
  () =>
    ceilings(props.printer, props.rules).find(c => c.zone === 'hotend' && c.headId === props.headId)?.limitC ?? null,
)
/** What the thread of a nozzle is made of: an insert sits in brass. */
function bodyOf(n: { material: string; insert: boolean }) {
  if (n.material === 'brass' || n.insert) return 'brass'
  if (n.material === 'plated copper') return 'copper'
  return n.material === 'tungsten carbide' || n.material === 'polycrystalline diamond' ? 'carbide' : 'steel'
}
/** Why it must not be turned. */
const refusal = computed(() => {
  const t = turning.value?.t
  if (!t || t.allowed) return ''
  if (t.atC !== null)
    return (
      `Do not turn it: ${t.material} asks ${t.atC} °C and the hotend may get ${ceiling.value} °C. ` +
      'Change the whole hotend.'
    )
  return t.material
    ? `Cannot tell how hot to turn it: ${t.material} has no swap temperature.`
    : 'Cannot tell how hot the hotend may get.'
})
/** How hot, how tight, how much longer: shown where the nozzle is turned. */
const turning = computed(() => {
  if (!newNozzle.value) return null
  const t = swapTemperature(oldNozzle.value ? props.through : [], ceiling.value)
  const body = bodyOf(newNozzle.value)
  const block = props.printer.parts.find(p => p.role === 'block' && p.headId === props.headId)?.kind.includes('copper')
    ? 'copper block'
    : 'aluminium block'
  const torque = torqueCeiling({
    channelMm: Math.min(4.9, props.channelMm),
    nozzleYieldMPa: HOT_YIELD_MPA[body],
    blockYieldMPa: HOT_YIELD_MPA[block],
    engagedMm: 5,
  })
  const z = oldNozzle.value ? zChange(oldNozzle.value.lengthMm, newNozzle.value.lengthMm) : null
  return { t, torque, z }
})
const cautions = computed(() => {
  const out = new Map<string, Caution>()
  const add = (action: Action, roles: string[], nozzleC: number | null) => {
    for (const c of cautionsFor({ action, roles, nozzleC })) out.set(c.key, c)
  }
  for (const s of props.swaps) {
    if (s.role === 'nozzle')
      add(
        'swap a nozzle',
        props.printer.parts.some(p => p.role === 'liner') ? ['liner'] : [],
        turning.value?.t.atC ?? 250,
      )
    else add('fit a part', [s.role], null)
    if (s.who === 'electrician') add('wire', [s.role], null)
  }
  return [...out.values()]
})
async function save(confirmed: string[] = []): Promise<void> {
  const done = await form.send(
    { printerId: props.printer.id, text: text.value, occurredAt: when.value, ...plan.value.entry },
    `Change on ${props.printer.name}`,
    confirmed,
  )
  if (done === null) return
  if (done !== 'queued') {
    const limits = done.limits.map(l => `${zoneWord(l.zone)} ${l.limitC} °C (${l.part})`)
    ui.say(`${done.printer} changed. Now: ${limits.join(', ')}.`)
  }
  emit('applied')
}
const otherErrors = computed(() =>
  Object.entries(form.errors.value)
    .filter(([k]) => k !== 'text' && k !== 'occurredAt')
    .map(([, v]) => v),
)
</script>

<template>
  <ModalSheet :open="open" :title="`Apply on ${printer.name}`" wide @close="emit('close')">
    <form class="grid gap-3" @submit.prevent="save()">
      <ul class="list-disc pl-5">
        <li v-for="s in swaps" :key="s.text">
          {{ s.text }}<b v-if="s.who === 'electrician'" class="text-look"> (licensed electrician)</b>
        </li>
      </ul>
      <div v-if="turning" class="sheet px-3 py-2 text-sm">
        <p class="font-[650]">The nozzle</p>
        <p v-if="!turning.t.allowed" class="font-semibold text-stop">{{ refusal }}</p>
        <p v-else>
          {{
            turning.t.atC === null
              ? 'Nothing went through the old one yet; warm it to the temperature of the next filament.'
              : `Turn it at ${turning.t.atC} °C: ${turning.t.material} went through.`
          }}
        </p>
        <p>
          Torque: never above the maker's value; by the metal at most about
          {{ turning.torque.newtonMetre.toFixed(1) }} N·m hot (the {{ turning.torque.part }} gives first; M6,
          {{ channelMm }} mm channel, half of yield).
        </p>
        <p
          v-if="turning.z && Math.abs(turning.z.mm) > 0.001"
          :class="turning.z.canTouchBed ? 'font-semibold text-look' : ''"
        >
          {{
            turning.z.mm > 0
              ? `${turning.z.mm.toFixed(2)} mm longer: it can hit the bed. Raise Z before homing.`
              : `${(-turning.z.mm).toFixed(2)} mm shorter: set Z before the first layer.`
          }}
        </p>
        <p v-else>Set Z anew before the first layer.</p>
      </div>
      <p v-for="n in plan.toReceive" :key="n" class="font-semibold text-look">
        A {{ n }} nozzle is not on the shelf.
        <NuxtLink class="underline" to="/stores?add=nozzle">Add it in Stores when it has come</NuxtLink>, then fit it.
        The other parts can be applied now.
      </p>
      <CautionList :cautions="cautions" title="While you do it" />
      <FieldText id="apply-text" v-model="text" label="What was done" :error="form.errors.value.text" />
      <FieldWhen id="apply-when" v-model="when" label="When" :error="form.errors.value.occurredAt" />
      <p v-for="e in otherErrors" :key="e" class="font-semibold text-stop" role="alert">{{ e }}</p>
      <QuestionBox :problem="form.problem.value" :busy="form.busy.value" @confirm="save" />
      <p class="text-xs text-ink2">
        What comes off goes to the shelf. A mistake is struck out in the printer's stack, and everything is as before.
      </p>
      <div class="flex gap-2">
        <button type="submit" class="button first" :disabled="form.busy.value">Apply</button
        ><button type="button" class="button" @click="emit('close')">Not yet</button>
      </div>
    </form>
  </ModalSheet>
</template>
