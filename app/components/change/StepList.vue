<script setup lang="ts">
/** All steps: what is done, by whom and when, what comes. The last tick can be taken back. */
import type { Step } from '#core/procedures'
import type { Tick } from '#shared/answers/change'
import { when } from '#shared/time'
import VerdictMark from '~/components/ui/VerdictMark.vue'
import { useShop } from '~/state/shop'

const props = defineProps<{
  steps: readonly Step[]
  ticks: readonly Tick[]
  /** Keys of steps that are ticked here and wait to be sent. */
  waiting: readonly string[]
  /** Keys of steps that can be done now. */
  open: readonly string[]
  chosen: string | null
  /** It has ended: nothing is taken back. */
  ended: boolean
}>()
const emit = defineEmits<{ choose: [key: string]; back: [tick: Tick] }>()
const shop = useShop()
const standing = (key: string) => props.ticks.find(t => t.step === key && t.struck === null)
const struck = (key: string) => props.ticks.filter(t => t.step === key && t.struck !== null)
const last = () => props.ticks.findLast(t => t.struck === null)?.id
const toneOf = (key: string) => {
  if (props.chosen === key) return 'font-[650]'
  return standing(key) ? '' : 'text-ink2'
}
/** Pictures of a step that is done. */
const pictured = (s: Step) =>
  s.fields.flatMap(f => {
    const sha256 = standing(s.key)?.values[f.key] ?? null
    return f.kind === 'photo' && sha256 !== null ? [{ key: f.key, label: f.label, sha256: String(sha256) }] : []
  })
/** What was written down, in words. */
function wrote(s: Step, t: Tick): string {
  const fields = s.fields.flatMap(f => {
    const x = t.values[f.key] ?? null
    // pictures are shown, not told
    if (x === null || f.kind === 'photo') return []
    const word = f.kind === 'choice' ? (f.choices.find(c => c.value === x)?.text ?? x) : x
    return [`${f.label}: ${word}${f.kind === 'number' ? ` ${f.unit}` : ''}`]
  })
  const read =
    t.readC === null
      ? []
      : [`${Math.round(t.readC)} °C ${t.readBy === 'person' ? 'read there' : 'told by the printer'}`]
  return [...fields, ...read].join('; ')
}
</script>

<template>
  <ol class="sheet" aria-label="Steps">
    <li
      v-for="(s, i) in steps"
      :key="s.key"
      class="grid grid-cols-[24px_minmax(0,1fr)_auto] items-center gap-x-2 border-t border-rule px-3 py-1 first:border-t-0"
      :class="chosen === s.key ? 'bg-faint' : ''"
      :data-step="s.key"
      :data-done="!!standing(s.key) || waiting.includes(s.key)"
    >
      <VerdictMark v-if="standing(s.key)" verdict="fine" :size="18" />
      <span v-else class="text-center text-ink2 tabular-nums">{{ i + 1 }}</span>
      <div class="min-w-0 py-1">
        <button
          v-if="!ended && open.includes(s.key) && chosen !== s.key"
          type="button"
          class="text-left font-[650] underline underline-offset-[3px]"
          @click="emit('choose', s.key)"
        >
          {{ s.title }}
        </button>
        <p v-else :class="toneOf(s.key)">{{ s.title }}</p>
        <p v-if="standing(s.key)" class="text-xs text-ink2">
          {{ standing(s.key)!.by }}, {{ when(standing(s.key)!.at, shop.zone)
          }}{{ wrote(s, standing(s.key)!) ? ` · ${wrote(s, standing(s.key)!)}` : '' }}
        </p>
        <p v-else-if="waiting.includes(s.key)" class="text-xs font-semibold text-look">
          Ticked here; waits to be sent.
        </p>
        <a
          v-for="f in pictured(s)"
          :key="f.key"
          :href="`/api/pictures/${f.sha256}`"
          target="_blank"
          rel="noopener"
          class="inline-flex min-h-[40px] items-center"
          ><img :src="`/api/pictures/${f.sha256}`" :alt="f.label" class="h-[64px] w-auto border border-ink"
        /></a>
        <p v-for="t in struck(s.key)" :key="t.id" class="text-xs text-ink2">
          <s>{{ t.by }}, {{ when(t.at, shop.zone) }}</s> taken back: {{ t.struck }}
        </p>
      </div>
      <button
        v-if="!ended && standing(s.key) && standing(s.key)!.id === last()"
        type="button"
        class="button plain"
        @click="emit('back', standing(s.key)!)"
      >
        Take it back<span class="sr-only">: {{ s.title }}</span>
      </button>
    </li>
  </ol>
</template>
