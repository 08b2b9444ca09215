<script setup lang="ts">
/** Labels: which things, which size, on which paper; looked at as they come out, printed, or taken as drawings. */
import { useLocalStorage } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import {
  A4,
  checkLabel,
  gridOf,
  LABEL_SIZES,
  labelPlaces,
  LEAST_MODULE_MM,
  middleGrid,
  moduleMm,
  MOST_LABELS,
  type LabelSize,
  type SheetGrid,
} from '#core/labels'
import { InputError } from '#core/numeric'
import { counted, mmNumber } from '#core/words'
import { codeOf } from '#shared/labels'
import LabelPaper from '~/components/stores/LabelPaper.vue'
import StoresTabs from '~/components/stores/StoresTabs.vue'
import TagLabel from '~/components/stores/TagLabel.vue'
import ChoiceButtons from '~/components/ui/ChoiceButtons.vue'
import FieldNumber from '~/components/ui/FieldNumber.vue'
import { useAnswer } from '~/composables/answer'
import { useInAddress } from '~/composables/in-address'
import { usePaper } from '~/composables/paper'
import { codeFor } from '~/lib/code'
import { saveFile } from '~/lib/files'
import { LABEL_CAUTION, LABEL_KINDS, labelledOf, type LabelKind } from '~/lib/tag-labels'
import { useShop } from '~/state/shop'

// nothing but labels on the paper: not whose it is, nor of when
definePageMeta({ ownStamp: true })
useHead({ title: 'Labels · Stores · Iron Nozzle' })
const shop = useShop()
const { data: pins, failure } = useAnswer('/api/pins')
const of = useInAddress('of', { none: 'Nozzles' })
const kind = computed<LabelKind>({
  get: () => LABEL_KINDS.find(k => k === of.value) ?? 'Nozzles',
  set: k => (of.value = k),
})
const find = useInAddress('find', { typed: true })
const all = computed(() => (shop.data ? labelledOf(kind.value, shop.data, pins.value ?? []) : []))
const shown = computed(() => {
  const wanted = find.value.trim().toLowerCase()
  return all.value.filter(l => [l.tag, ...l.lines, l.where].some(t => t.toLowerCase().includes(wanted)))
})
const chosen = ref<string[]>([])
watch(kind, () => (chosen.value = []))
const labels = computed(() => all.value.filter(l => chosen.value.includes(l.tag)))
const allShown = computed(() => shown.value.length > 0 && shown.value.every(l => chosen.value.includes(l.tag)))
function chooseShown(): void {
  const tags = shown.value.map(l => l.tag)
  chosen.value = allShown.value
    ? chosen.value.filter(t => !tags.includes(t))
    : [...new Set([...chosen.value, ...tags])].slice(0, MOST_LABELS)
}

/** What this browser printed on last. */
const kept = useLocalStorage('iron-nozzle-labels', { widthMm: 62, heightMm: 29, paper: 'label' as 'label' | 'A4' })
const paper = computed({ get: () => kept.value.paper, set: p => (kept.value.paper = p) })
const widthMm = ref<number | null>(kept.value.widthMm)
const heightMm = ref<number | null>(kept.value.heightMm)
const from = ref<number | null>(1)
const grid = ref<{ [K in keyof SheetGrid]: number | null }>({ leftMm: 0, topMm: 0, gapXMm: 0, gapYMm: 0 })
const isSize = (s: LabelSize) => s.widthMm === widthMm.value && s.heightMm === heightMm.value
const sizeText = (s: LabelSize) => `${s.widthMm} × ${s.heightMm} mm`
function setSize(s: LabelSize): void {
  widthMm.value = s.widthMm
  heightMm.value = s.heightMm
}
/** What was typed as the core takes it, or what it says of a field. */
function taken<T>(work: () => T): { value: T | null; errors: Record<string, string> } {
  try {
    return { value: work(), errors: {} }
  } catch (e) {
    if (!(e instanceof InputError)) throw e
    return { value: null, errors: { [e.field]: `Enter ${e.allowed}` } }
  }
}
const none = (v: number | null) => v ?? NaN
const size = computed(() =>
  taken(() => {
    const s = { widthMm: none(widthMm.value), heightMm: none(heightMm.value) }
    checkLabel(s)
    return s
  }),
)
watch(
  size,
  s => {
    if (s.value === null) return
    Object.assign(kept.value, s.value)
    grid.value = middleGrid(s.value)
  },
  { immediate: true },
)
const sheet = computed(() =>
  taken(() => {
    const s = size.value.value
    if (s === null) return null
    const g = grid.value
    const typed = { leftMm: none(g.leftMm), topMm: none(g.topMm), gapXMm: none(g.gapXMm), gapYMm: none(g.gapYMm) }
    const per = gridOf(s, typed)
    return { ...per, places: labelPlaces(s, typed, none(from.value), Math.max(1, labels.value.length)) }
  }),
)
const errors = computed(() => ({ ...size.value.errors, ...sheet.value.errors }))
const pages = computed(() => {
  const s = sheet.value.value
  if (!s) return []
  const placed = labels.value.map((label, i) => ({ label, ...s.places[i]! }))
  return [...new Set(placed.map(p => p.page))].map(page => placed.filter(p => p.page === page))
})
const address = computed(() => shop.data?.settings.labelAddress ?? '')
const shopName = computed(() => shop.data?.settings.shopName ?? '')
/** The finest module of the chosen codes on this size. */
const finest = computed(() => {
  const s = size.value.value
  if (s === null || labels.value.length === 0) return null
  return Math.min(...labels.value.map(l => moduleMm(s, codeFor(codeOf(address.value, l.tag)).modules)))
})
const tooFine = computed(() => finest.value !== null && finest.value < LEAST_MODULE_MM)
const ready = computed(
  () => labels.value.length > 0 && size.value.value !== null && (paper.value === 'label' || pages.value.length > 0),
)
// the paper is as large as what is printed on it
useHead({
  style: [
    {
      innerHTML: () => {
        const s = paper.value === 'A4' ? A4 : (size.value.value ?? A4)
        return `@media print { @page { size: ${s.widthMm}mm ${s.heightMm}mm; margin: 0 } }`
      },
    },
  ],
})
const { onPaper } = usePaper()
const print = () => window.print()
/** The labels as drawings, each by itself, in one file. */
function exportSvg(): void {
  const drawn = [...document.querySelectorAll('#label-preview svg[aria-label^="Label "]')].map(x => x.outerHTML)
  const s = size.value.value!
  const inner = drawn.map((svg, i) => svg.replace('<svg', `<svg y="${i * (s.heightMm + 2)}mm"`)).join('\n')
  const high = drawn.length * (s.heightMm + 2)
  saveFile(
    `labels-${kind.value.toLowerCase()}.svg`,
    'image/svg+xml',
    `<svg xmlns="http://www.w3.org/2000/svg" width="${s.widthMm}mm" height="${high}mm">\n${inner}\n</svg>\n`,
  )
}
const lead = computed(() => {
  if (labels.value.length === 0) return `Choose what gets a label: ${counted(all.value.length, 'thing')} here.`
  const s = size.value.value
  if (s === null) return 'Enter the size of the label.'
  const on = paper.value === 'A4' ? `, ${counted(pages.value.length, 'A4 sheet')}` : ''
  return `${counted(labels.value.length, 'label')} of ${sizeText(s)}${on}.`
})
</script>

<template>
  <div>
    <div v-if="!onPaper" class="no-print">
      <StoresTabs :failure="failure" />
      <p class="mb-2 text-[17px] font-[680]" role="status">{{ lead }}</p>
      <p v-if="address" class="mb-3 text-sm">
        The code opens <b class="break-all">{{ address }}/t/…</b>: by a phone's own camera, by a hand scanner into the
        strip.
      </p>
      <p v-else class="mb-2 flex flex-wrap items-center gap-x-3 text-sm">
        The code says the tag alone, for a hand scanner or this app's own reading. With the shop's address a phone's
        camera opens it too.
        <NuxtLink to="/stores?tab=Shop" class="act">Enter the address</NuxtLink>
      </p>
      <div v-if="shop.data" class="grid items-start gap-5 lg:grid-cols-[minmax(0,400px)_minmax(0,1fr)]">
        <div class="grid gap-3">
          <ChoiceButtons
            v-model="kind"
            label="What"
            :options="LABEL_KINDS.map(value => ({ value: value as LabelKind, text: value }))"
          />
          <p class="border-l-4 border-look pl-3 text-sm">{{ LABEL_CAUTION[kind] }}</p>
          <div class="flex items-end gap-2">
            <div class="field flex-1">
              <label for="labels-find">Find</label>
              <input id="labels-find" v-model="find" class="input" type="search" placeholder="tag, type or place" />
            </div>
            <button type="button" class="button" :disabled="shown.length === 0" @click="chooseShown">
              {{ allShown ? 'None of these' : `All ${shown.length}` }}
            </button>
          </div>
          <ul class="sheet max-h-[320px] overflow-y-auto" :aria-label="kind" tabindex="0">
            <li v-for="l in shown" :key="l.tag" class="border-t border-rule px-3 first:border-t-0">
              <label class="check w-full"
                ><input v-model="chosen" type="checkbox" :value="l.tag" /> <b>{{ l.tag }}</b>
                <span class="text-sm text-ink2">{{ [...l.lines, l.where].filter(Boolean).join(', ') }}</span></label
              >
            </li>
            <li v-if="shown.length === 0" class="p-3 text-sm text-ink2">
              {{ all.length === 0 ? `No ${kind.toLowerCase()} yet.` : 'Nothing of that name.' }}
            </li>
          </ul>
          <fieldset class="grid gap-2">
            <legend class="label">Label</legend>
            <div class="flex flex-wrap gap-1">
              <button
                v-for="s in LABEL_SIZES"
                :key="sizeText(s)"
                type="button"
                class="button"
                :class="isSize(s) ? 'first' : ''"
                :aria-pressed="isSize(s)"
                @click="setSize(s)"
              >
                {{ sizeText(s) }}
              </button>
            </div>
            <div class="grid grid-cols-2 gap-3">
              <FieldNumber id="label-width" v-model="widthMm" label="Wide" unit="mm" :error="errors.widthMm" />
              <FieldNumber id="label-height" v-model="heightMm" label="High" unit="mm" :error="errors.heightMm" />
            </div>
          </fieldset>
          <ChoiceButtons
            v-model="paper"
            label="Paper"
            :options="[
              { value: 'label' as 'label' | 'A4', text: 'Label by label' },
              { value: 'A4' as const, text: 'A4 sheet' },
            ]"
          />
          <template v-if="paper === 'A4'">
            <p v-if="sheet.value" class="text-sm text-ink2">
              {{ sheet.value.columns }} across, {{ sheet.value.rows }} down. Print at 100 %, and hold the first sheet
              against a sheet of labels before the good ones go in.
            </p>
            <div class="grid grid-cols-2 gap-3">
              <FieldNumber
                id="label-from"
                v-model="from"
                label="First free place"
                hint="1 is the upper left"
                :error="errors.from"
              />
              <span />
              <FieldNumber id="label-left" v-model="grid.leftMm" label="Left" unit="mm" :error="errors.leftMm" />
              <FieldNumber id="label-top" v-model="grid.topMm" label="Top" unit="mm" :error="errors.topMm" />
              <FieldNumber id="label-gap-x" v-model="grid.gapXMm" label="Between" unit="mm" :error="errors.gapXMm" />
              <FieldNumber id="label-gap-y" v-model="grid.gapYMm" label="Below" unit="mm" :error="errors.gapYMm" />
            </div>
          </template>
          <div class="flex flex-wrap gap-2">
            <button type="button" class="button first" :disabled="!ready" @click="print">
              Print {{ labels.length > 0 ? counted(labels.length, 'label') : '' }}
            </button>
            <button type="button" class="button" :disabled="labels.length === 0 || !size.value" @click="exportSvg">
              SVG
            </button>
          </div>
        </div>
        <div id="label-preview">
          <p v-if="tooFine" class="mb-2 font-[650] text-look" role="status">
            The code's squares are {{ mmNumber(finest!, 2) }} mm: below {{ LEAST_MODULE_MM }} mm they are read badly.
            Take a larger label or a shorter address.
          </p>
          <template v-if="size.value && labels.length > 0">
            <div v-if="paper === 'label'" class="flex flex-wrap gap-3">
              <TagLabel
                v-for="l in labels"
                :key="l.tag"
                :of="l"
                :size="size.value"
                :address="address"
                :shop="shopName"
                outline
              />
            </div>
            <div v-for="(page, i) in pages" v-else :key="i" class="mb-3 max-w-[520px]">
              <svg
                :viewBox="`0 0 ${A4.widthMm} ${A4.heightMm}`"
                class="w-full border border-ink bg-white"
                role="img"
                :aria-label="`Sheet ${i + 1}: ${counted(page.length, 'label')}`"
              >
                <g v-for="p in page" :key="p.label.tag" :transform="`translate(${p.xMm} ${p.yMm})`">
                  <TagLabel :of="p.label" :size="size.value" :address="address" :shop="shopName" outline in-mm />
                </g>
              </svg>
            </div>
          </template>
          <p v-else class="text-sm text-ink2">What is chosen is drawn here as it comes out of the printer.</p>
        </div>
      </div>
      <div v-else class="sheet h-[480px] animate-pulse opacity-60" role="status" aria-label="Reading the shop" />
    </div>
    <LabelPaper
      v-else-if="size.value"
      :labels="labels"
      :sheets="paper === 'A4' ? pages : null"
      :size="size.value"
      :address="address"
      :shop="shopName"
    />
  </div>
</template>
