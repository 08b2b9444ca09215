<script setup lang="ts">
/** Applies what was tried: one change with its date, the hazards of the work, and the facts of a nozzle swap. */
import { celsiusDown, zoneWord } from '#core/words'
import { computed } from 'vue'
import { cautionsFor, type Action, type Caution } from '#core/cautions'
import { torqueFor, turning as turningAt, zChange, zWords } from '#core/changeover'
import { ceilings, stackOf, type FittedNozzle, type Printer, type Rules, type Swap } from '#core/limits'
import EntrySheet from '~/components/entry/EntrySheet.vue'
import CautionList from '~/components/equip/CautionList.vue'
import FieldText from '~/components/ui/FieldText.vue'
import FieldWhen from '~/components/ui/FieldWhen.vue'
import { useEntrySheet } from '~/composables/entry-sheet'
import { changeOf } from '~/lib/changes'
import { useShop } from '~/state/shop'

const props = defineProps<{
  open: boolean
  printer: Printer
  headId: number
  swaps: readonly Swap[]
  rules: Rules
  through: readonly { name: string; swapC: number | null }[]
}>()
const shop = useShop()
const emit = defineEmits<{ close: []; applied: [] }>()
const plan = computed(() => changeOf(props.printer, props.headId, props.swaps))
const sheet = useEntrySheet('/api/changes', {
  on: () => (props.open ? props : null),
  name: p => `apply ${p.printer.id} ${p.headId} ${p.swaps.map(s => s.text).join(' ')}`,
  start: p => ({
    text: p.swaps
      .map(s => s.text)
      .join('; ')
      .slice(0, 2000),
    occurredAt: new Date().toISOString(),
  }),
  body: (v, p) => ({ printerId: p.printer.id, ...v, ...plan.value.entry }),
  says: (_, p) => `Change on ${p.printer.name}`,
  saved: done => {
    const limits = done.limits.map(l => `${zoneWord(l.zone)} ${celsiusDown(l.limitC)} (${l.part})`)
    return `${done.printer} changed. Now: ${limits.join(', ')}.`
  },
  close: logged => (logged ? emit('applied') : emit('close')),
})
const oldNozzle = computed(() => props.printer.heads.find(h => h.id === props.headId)?.nozzle ?? null)
const newNozzle = computed(() => props.swaps.find(s => s.role === 'nozzle')?.add[0] as FittedNozzle | undefined)
/** How hot, how tight, how much longer: shown where the nozzle is turned; the same rules as a swap step by step. */
const turning = computed(() => {
  const fresh = newNozzle.value
  if (!fresh) return null
  const ceiling = ceilings(props.printer, props.rules).find(c => c.zone === 'hotend' && c.headId === props.headId)
  const sensor = stackOf(props.printer, props.headId).sensors.hotend
  const block = props.printer.parts.find(p => p.role === 'block' && p.headId === props.headId)?.kind ?? null
  const typeName = shop.data?.nozzles.find(n => n.id === fresh.id)?.typeName
  const type = shop.data?.types.find(t => t.name === typeName)
  const nozzle = { ...fresh, channelMm: type?.inletMm ?? 2, makerNm: type?.torqueNm ?? null }
  return {
    t: turningAt(sensor, ceiling?.limitC ?? null, oldNozzle.value ? props.through : []),
    torque: torqueFor(nozzle, block),
    channelMm: nozzle.channelMm,
    z: oldNozzle.value ? zChange(oldNozzle.value.lengthMm, fresh.lengthMm) : null,
  }
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
        turning.value?.t.setC ?? 250,
      )
    else add('fit a part', [s.role], null)
    if (s.who === 'electrician') add('wire', [s.role], null)
  }
  return [...out.values()]
})
</script>

<template>
  <EntrySheet
    :sheet="sheet"
    :title="`Apply on ${printer.name}`"
    wide
    action="Apply"
    give-up="Not yet"
    :shown="['text', 'occurredAt']"
  >
    <ul class="list-disc pl-5">
      <li v-for="s in swaps" :key="s.text">
        {{ s.text }}<b v-if="s.who === 'electrician'" class="text-look"> (licensed electrician)</b>
      </li>
    </ul>
    <div v-if="turning" class="sheet px-3 py-2 text-sm">
      <p class="font-[650]">The nozzle</p>
      <p v-if="turning.t.refusal !== null" class="font-semibold text-stop">{{ turning.t.refusal }}</p>
      <p v-else>
        {{
          turning.t.material === null
            ? `Nothing that is known went through the old one: turn it at ${turning.t.setC} °C.`
            : `Turn it at ${turning.t.setC} °C: ${turning.t.material} went through.`
        }}
      </p>
      <p>
        Torque: never above the maker's value; at most about {{ turning.torque.newtonMetre.toFixed(1) }} N·m hot ({{
          turning.torque.by === 'maker'
            ? "the maker's value"
            : `the ${turning.torque.by} gives first; M6, ${turning.channelMm} mm channel, half of yield`
        }}).
      </p>
      <p
        v-if="turning.z && Math.abs(turning.z.mm) > 0.001"
        :class="turning.z.canTouchBed ? 'font-semibold text-look' : ''"
      >
        {{ zWords(turning.z.mm) }}{{ turning.z.canTouchBed ? ' Raise Z before homing: it can hit the bed.' : '' }}
      </p>
      <p v-else>Set Z anew before the first layer.</p>
      <p v-if="turning.t.refusal === null">
        <NuxtLink class="underline" :to="`/change/swap?head=${headId}&nozzle=${newNozzle?.id}`"
          >Swap it step by step</NuxtLink
        >
        and it is written down as it is done.
      </p>
    </div>
    <p v-for="n in plan.toReceive" :key="n" class="font-semibold text-look">
      A {{ n }} nozzle is not on the shelf.
      <NuxtLink class="underline" to="/stores?add=nozzle">Add it in Stores when it has come</NuxtLink>, then fit it. The
      other parts can be applied now.
    </p>
    <p v-for="d in plan.dryers" :key="d" class="font-semibold text-look">
      A {{ d }}: dryers are the shop's, not this printer's.
      <NuxtLink class="underline" to="/prepare?dryer=new">Enter it under Prepare, Dry, when it has come</NuxtLink>. The
      other parts can be applied now.
    </p>
    <CautionList :cautions="cautions" title="While you do it" />
    <FieldText id="apply-text" v-model="sheet.v.text" label="What was done" :error="sheet.errors.text" />
    <FieldWhen id="apply-when" v-model="sheet.v.occurredAt" label="When" :error="sheet.errors.occurredAt" />
    <p class="text-xs text-ink2">
      What comes off goes to the shelf. A mistake is struck out in the printer's stack, and everything is as before.
    </p>
  </EntrySheet>
</template>
