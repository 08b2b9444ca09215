<script setup lang="ts">
/** Every requirement on one line: asked, allowed, margin, the part that decides, and where its limit comes from. */
import { computed, ref } from 'vue'
import { inOrder, wordsOf, type Demand, type FittedNozzle, type Line } from '#core/limits'
import ClassMark from '~/components/ui/ClassMark.vue'

const props = defineProps<{ lines: readonly Line[]; demand: Demand; nozzle: FittedNozzle | null; brief?: boolean }>()
const all = ref(false)
const MARK = { ok: 'runs', just: 'just', look: 'changes', short: 'cannot', unknown: 'cannot tell' } as const
const WORD = { ok: 'fine', just: 'just', look: 'look', short: 'short', unknown: 'not known' } as const
/** Of several parts of one kind that hold, only the tightest shows until all are asked for. */
const shown = computed(() => {
  const sorted = inOrder(props.lines)
  if (all.value) return sorted
  const seen = new Set<string>()
  return sorted.filter(l => {
    if (l.status !== 'ok') return !props.brief || l.status !== 'look'
    if (props.brief || seen.has(l.key)) return false
    seen.add(l.key)
    return true
  })
})
const hidden = computed(() => props.lines.length - shown.value.length)
const rows = computed(() => shown.value.map(l => ({ l, w: wordsOf(l, props.demand, props.nozzle) })))
</script>

<template>
  <div>
    <div class="relative overflow-x-auto" tabindex="0" role="group" aria-label="Requirements, pans sideways">
      <table class="record sheet max-sm:block">
        <thead class="max-sm:hidden">
          <tr>
            <th>requirement</th>
            <th class="num">asked</th>
            <th class="num">allowed</th>
            <th class="num">margin</th>
            <th>part that decides, and basis</th>
          </tr>
        </thead>
        <tbody class="max-sm:block">
          <tr
            v-for="({ l, w }, i) in rows"
            :key="i"
            class="max-sm:grid max-sm:grid-cols-2 max-sm:border-b max-sm:border-rule"
            :class="l.status === 'short' ? 'bg-white' : ''"
          >
            <td class="max-sm:col-span-2">
              <span class="flex items-center gap-2"
                ><ClassMark :verdict="MARK[l.status]" :size="15" /><span
                  ><b
                    :class="{ short: 'text-stop', look: 'text-look', just: 'text-look', ok: '', unknown: '' }[l.status]"
                    >{{ w.what }}</b
                  ><span class="sr-only">: {{ WORD[l.status] }}</span></span
                ></span
              >
            </td>
            <td class="num max-sm:text-left!">
              <span class="sm:hidden text-ink2">asked </span
              ><span class="inline-block max-w-[150px] whitespace-normal">{{ w.asked || '–' }}</span>
            </td>
            <td class="num max-sm:text-left!">
              <span class="sm:hidden text-ink2">allowed </span
              ><b class="inline-block max-w-[120px] whitespace-normal">{{ w.allowed || '–' }}</b>
            </td>
            <td class="num max-sm:text-left!" :class="l.status === 'short' ? 'font-bold text-stop' : ''">
              <span v-if="w.margin" class="sm:hidden text-ink2">margin </span>{{ w.margin }}
            </td>
            <td class="max-sm:col-span-2 w-[40%]">
              <span v-if="w.decides" class="font-semibold">{{ w.decides }}</span><span v-if="w.basis" class="text-ink2">
                · {{ w.basis }}</span
              ><span v-if="w.says" class="block text-[13px]" :class="l.status === 'unknown' ? 'font-semibold' : ''">{{
                w.says
              }}</span>
            </td>
          </tr>
        </tbody>
      </table>
    </div>
    <button v-if="hidden > 0 || all" type="button" class="button plain" :aria-expanded="all" @click="all = !all">
      {{ all ? 'Only what decides' : `All ${lines.length} lines` }}
    </button>
  </div>
</template>
