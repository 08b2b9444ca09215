<script setup lang="ts">
/* eslint-disable max-lines -- one screen: a set-up and the reading of its scale */
/** Set-ups and their scales: from a stage scale, a pin, two points, or by hand. */
import { computed, ref, shallowRef, watch } from 'vue'
import { twoPointScale, type NoScale, type Scale, type StageScale } from '#core/imaging'
import { InputError } from '#core/numeric'
import type { SetupLine } from '#shared/answers/pictures'
import { SCALE_WAYS } from '#shared/choices'
import { day } from '#shared/time'
import StrikeSheet from '~/components/entry/StrikeSheet.vue'
import InspectTabs from '~/components/inspect/InspectTabs.vue'
import PictureDrop from '~/components/inspect/PictureDrop.vue'
import PictureView from '~/components/inspect/PictureView.vue'
import SetupSheet from '~/components/inspect/SetupSheet.vue'
import FieldNumber from '~/components/ui/FieldNumber.vue'
import FieldSelect from '~/components/ui/FieldSelect.vue'
import FieldText from '~/components/ui/FieldText.vue'
import SavedNote from '~/components/ui/SavedNote.vue'
import VerdictMark from '~/components/ui/VerdictMark.vue'
import { useAnswer } from '~/composables/answer'
import { useEntryForm } from '~/composables/entry-form'
import { usePicture } from '~/composables/picture'
import { isDue, scaleOf } from '~/lib/set-up'
import { useShop } from '~/state/shop'
import { share } from '~/words/picture'

useHead({ title: 'Scale · Iron Nozzle' })
const route = useRoute()
const shop = useShop()
const { data: setups, failure } = useAnswer('/api/setups')
const picture = usePicture()
const form = useEntryForm('/api/scales')

const usable = computed(() => (setups.value ?? []).filter(s => !s.withdrawn))
const setupId = ref<number | null>(route.query.setup ? Number(route.query.setup) : null)
watch(usable, list => {
  if (!list.some(s => s.id === setupId.value)) setupId.value = list[0]?.id ?? null
})
const setup = computed(() => usable.value.find(s => s.id === setupId.value) ?? null)
const adding = ref(false)
// the address may say so a moment after the page stands
watch(
  () => route.query.add,
  what => {
    if (what === 'setup') adding.value = true
  },
  { immediate: true },
)
const editing = ref<SetupLine | null>(null)

type Way = (typeof SCALE_WAYS)[number]
const way = ref<Way>('stage scale')
const WAY_WORDS: Record<Way, string> = {
  'stage scale': 'a picture of a stage scale',
  'pin': 'a pin of known size, lying in the plane of the tip',
  'two points': 'two points a known distance apart',
  'by hand': 'typed, from its data sheet or elsewhere',
}
const KNOWN_WORDS: Record<Way, string> = {
  'stage scale': 'From bar to bar',
  'pin': 'The pin measures',
  'two points': 'The points are apart',
  'by hand': '',
}
const knownMm = ref<number | null>(0.01)
const uKnownMm = ref<number | null>(0)
const umPerPx = ref<number | null>(null)
const uUmPerPx = ref<number | null>(null)
const note = ref('')
const points = ref<{ x: number; y: number }[]>([])
const found = shallowRef<(Scale & { says: string }) | null>(null)
const refused = ref('')
const saved = ref<string | null>(null)

const needsPoints = computed(() => way.value === 'pin' || way.value === 'two points')
watch(way, w => {
  knownMm.value = w === 'stage scale' ? 0.01 : null
  uKnownMm.value = w === 'stage scale' ? 0 : 0.001
  forget()
  place()
})
function forget(): void {
  found.value = null
  refused.value = ''
  saved.value = null
  form.reset()
}
function place(): void {
  const { url, width: w, height: h } = picture.state
  points.value =
    url && needsPoints.value
      ? [
          { x: 0.35 * w, y: h / 2 },
          { x: 0.65 * w, y: h / 2 },
        ]
      : []
}
async function take(file: Blob, name: string): Promise<void> {
  forget()
  if (!(await picture.open(file, name))) return
  place()
  if (way.value === 'stage scale') await measure()
}
function said(reason: string): void {
  picture.close()
  picture.state.failure = reason
}

async function measure(): Promise<void> {
  forget()
  const known = knownMm.value
  if (known === null || !(known > 0) || !setup.value) {
    refused.value = 'Say how far apart, in mm.'
    return
  }
  const tone = setup.value.tone ?? 'srgb'
  const uKnown = uKnownMm.value ?? 0
  const [a, b] = points.value.map(p => ({ x: p.x, y: p.y }))
  try {
    if (way.value === 'two points') {
      found.value = { ...twoPointScale(a!, b!, known, uKnown), says: 'from two points' }
      return
    }
    const made = await picture.work<StageScale | Scale | NoScale>(async api =>
      way.value === 'pin' ? await api.pin(a!, b!, known, uKnown, tone) : await api.stage(known, uKnown, tone),
    )
    if (made === null) return
    if ('refused' in made) refused.value = /[.?]$/.test(made.reason) ? made.reason : `${made.reason}.`
    else {
      const bars = 'bars' in made ? `${made.bars} bars at ${Math.round(made.alongDeg)}°` : 'between the two edges'
      found.value = { umPerPx: made.umPerPx, uUmPerPx: made.uUmPerPx, says: bars }
    }
  } catch (e) {
    refused.value = e instanceof InputError ? `${e.field}: ${e.allowed}.` : String(e)
  }
}
const typed = computed<Scale | null>(() =>
  umPerPx.value !== null && uUmPerPx.value !== null ? { umPerPx: umPerPx.value, uUmPerPx: uUmPerPx.value } : null,
)
const now = computed(() => (way.value === 'by hand' ? typed.value : found.value))

async function save(): Promise<void> {
  if (!now.value || !setup.value) return
  const { umPerPx: um, uUmPerPx: u } = now.value
  const done = await form.send(
    {
      setupId: setup.value.id,
      how: way.value,
      knownMm: way.value === 'by hand' ? null : knownMm.value,
      umPerPx: um,
      uUmPerPx: u,
      note: note.value,
      occurredAt: new Date().toISOString(),
    },
    `Scale of ${setup.value.name}`,
  )
  if (done === null) return
  saved.value = done === 'queued' ? null : `${setup.value.name}: ${um.toFixed(4)} µm per pixel, from today on.`
  isSaved.value = true
}
const isSaved = ref(false)
watch([way, setupId, () => picture.state.url], () => {
  isSaved.value = false
})

const title = computed(() => {
  if (!setups.value) return ''
  if (usable.value.length === 0) return 'No set-up yet. Add the microscope or camera that pictures are taken with.'
  const none = usable.value.find(s => !scaleOf(s))
  if (none) return `${none.name} has no scale yet: read it from a stage scale, a pin, or two points.`
  const due = usable.value.find(isDue)
  if (due) return `The scale of ${due.name} is due again: it was read on ${day(scaleOf(due)!.at, shop.zone)}.`
  return 'Every set-up has a scale that is not due yet.'
})
const striking = ref<{ target: 'scale'; id: number; says: string } | null>(null)
const toneWords = (t: SetupLine['tone']) =>
  t === null ? 'tone not stated' : { srgb: 'camera tone curve', linear: 'linear' }[t]
</script>

<template>
  <div>
    <InspectTabs :failure="failure" />
    <p v-if="title" class="mb-3 text-[15px] font-[650]" role="status">{{ title }}</p>
    <div class="grid grid-cols-[minmax(0,1fr)] items-start gap-[14px] lg:grid-cols-[minmax(0,1fr)_400px]">
      <section v-if="setup" class="grid grid-cols-[minmax(0,1fr)] gap-3" aria-label="Read a scale">
        <div class="grid gap-3 sm:grid-cols-2">
          <FieldSelect
            id="scale-setup"
            v-model="setupId"
            label="Set-up"
            :options="usable.map(s => ({ value: s.id as number | null, text: s.name }))"
          />
          <FieldSelect
            id="scale-way"
            v-model="way"
            label="Scale from"
            :options="SCALE_WAYS.map(w => ({ value: w, text: WAY_WORDS[w] }))"
          />
        </div>
        <div v-if="way === 'by hand'" class="grid gap-3 sm:grid-cols-2">
          <FieldNumber
            id="um-px"
            v-model="umPerPx"
            label="Scale"
            unit="µm per pixel"
            :error="form.errors.value.umPerPx"
          />
          <FieldNumber
            id="u-um-px"
            v-model="uUmPerPx"
            label="± (one standard uncertainty)"
            unit="µm per pixel"
            :error="form.errors.value.uUmPerPx"
          />
        </div>
        <template v-else>
          <div class="grid gap-3 sm:grid-cols-2">
            <FieldNumber
              id="known-mm"
              v-model="knownMm"
              :label="KNOWN_WORDS[way]"
              unit="mm"
              :error="form.errors.value.knownMm"
            />
            <FieldNumber id="u-known-mm" v-model="uKnownMm" label="± (one standard uncertainty)" unit="mm" />
          </div>
          <PictureDrop
            :stage="way === 'stage scale' ? { every: String(knownMm ?? 0.01) } : null"
            :small="picture.state.url !== null"
            :stage-says="
              way === 'stage scale'
                ? 'The stand-in puts a stage scale under it.'
                : 'The stand-in has a stage scale only: choose that above.'
            "
            @picture="take"
            @failure="said"
          />
          <p v-if="picture.state.failure || refused" class="flex items-start gap-2 text-look" role="status">
            <VerdictMark verdict="look" :size="16" class="mt-[2px]" /><b>{{ picture.state.failure || refused }}</b>
          </p>
          <div v-if="picture.state.busy" class="flex items-center gap-3">
            <progress class="h-2 flex-1" aria-label="Measuring" />
            <button type="button" class="button" @click="picture.cancel()">Cancel</button>
          </div>
          <PictureView
            v-if="picture.state.url"
            :url="picture.state.url"
            :width="picture.state.width"
            :height="picture.state.height"
            :says="needsPoints ? 'Picture: put one point on each side' : 'Picture of a stage scale'"
            :ring="null"
            :points="needsPoints ? points : null"
            :bore="null"
            :um-per-px="null"
            @point="(i, p) => (points = points.map((o, k) => (k === i ? p : o)))"
          />
          <p v-if="picture.state.url && way === 'pin'" class="text-sm">
            Put one point on each edge of the pin, straight across it; the edges are found near them.
          </p>
          <div v-if="picture.state.url">
            <button type="button" class="button" :disabled="!!picture.state.busy" @click="measure">
              Read the scale
            </button>
          </div>
        </template>
        <SavedNote v-if="isSaved" :of="`scale of ${setup.name}`" :text="saved" :look="false">
          <NuxtLink class="button first" to="/inspect/picture">Measure a picture</NuxtLink>
        </SavedNote>
        <form v-else-if="now" class="sheet grid gap-3 p-3" aria-label="Save the scale" @submit.prevent="save">
          <p class="text-[22px] font-bold [font-stretch:88%]">{{ now.umPerPx.toFixed(4) }} µm per pixel</p>
          <p class="text-sm text-ink2">
            ± {{ now.uUmPerPx.toFixed(4) }} ({{ share(now) }}), one standard uncertainty{{
              found && way !== 'by hand' ? `; ${found.says}` : ''
            }}
          </p>
          <FieldText id="scale-note" v-model="note" label="Note" :error="form.errors.value.note" />
          <p v-for="(e, f) in form.errors.value" :key="f" class="text-sm font-semibold text-stop" role="alert">
            {{ e }}
          </p>
          <button type="submit" class="button first" :disabled="form.busy.value">
            Save as the scale of {{ setup.name }}
          </button>
        </form>
      </section>
      <section class="grid gap-3" aria-label="Set-ups">
        <div>
          <button type="button" class="button" :class="usable.length === 0 ? 'first' : ''" @click="adding = true">
            Add a set-up
          </button>
        </div>
        <article v-for="s in setups ?? []" :key="s.id" class="sheet grid gap-1 p-3">
          <h2 class="flex flex-wrap items-center gap-2">
            {{ s.name }}<span v-if="s.withdrawn" class="text-sm font-normal text-ink2">no longer in use</span>
            <button type="button" class="button plain ml-auto" @click="editing = s">
              Edit<span class="sr-only"> {{ s.name }}</span>
            </button>
          </h2>
          <p class="text-sm text-ink2">
            {{ s.focusesItself ? 'focuses by itself, no surer than 1 % unless the scale is in the picture; ' : ''
            }}{{ toneWords(s.tone) }}; due every {{ s.dueDays }} days; {{ s.gauges }}
            {{ s.gauges === 1 ? 'gauge' : 'gauges' }}{{ s.note ? `; ${s.note}` : '' }}
          </p>
          <p v-if="isDue(s)" class="text-sm font-semibold text-look">Its scale is due again.</p>
          <ul class="grid gap-1">
            <li v-for="l in s.scales" :key="l.id" class="flex flex-wrap items-center gap-x-2 text-sm">
              <span :class="l.struck ? 'line-through' : ''"
                >{{ day(l.at, shop.zone) }}: {{ l.umPerPx.toFixed(4) }} µm per pixel ± {{ share(l) }}, {{ l.how }},
                {{ l.person }}</span
              ><span v-if="l.struck" class="text-ink2">struck out: {{ l.struck }}</span>
              <button
                v-else
                type="button"
                class="button plain ml-auto"
                @click="striking = { target: 'scale', id: l.id, says: `The scale of ${s.name}` }"
              >
                Strike out
              </button>
            </li>
            <li v-if="s.scales.length === 0" class="text-sm text-look">no scale yet</li>
          </ul>
        </article>
      </section>
    </div>
    <SetupSheet :open="adding || editing !== null" :setup="editing" @close="((adding = false), (editing = null))" />
    <StrikeSheet :target="striking" @close="striking = null" />
  </div>
</template>
