<script setup lang="ts">
/* eslint-disable max-lines -- one screen: from the picture to the saved gauge */
/** The picture gauge: a nozzle, a set-up, a picture; the ring on the mouth; the bore with its uncertainty; save it. */
import { computed, nextTick, ref, shallowRef, watch } from 'vue'
import {
  partsOf,
  randomPart,
  scaleFor,
  twoPointScale,
  type Bore,
  type Budget,
  type Ellipse,
  type NoBore,
  type Scale,
} from '#core/imaging'
import { InputError } from '#core/numeric'
import type { GaugeEffect } from '#shared/answers/nozzles'
import { SHAPES } from '#shared/choices'
import { pictureGauge, shapesSeen } from '#shared/picture-entry'
import { day } from '#shared/time'
import InspectTabs from '~/components/inspect/InspectTabs.vue'
import PictureForStudy from '~/components/inspect/PictureForStudy.vue'
import PictureDrop from '~/components/inspect/PictureDrop.vue'
import PictureRow from '~/components/inspect/PictureRow.vue'
import PictureView from '~/components/inspect/PictureView.vue'
import FieldNumber from '~/components/ui/FieldNumber.vue'
import FieldSelect from '~/components/ui/FieldSelect.vue'
import FieldText from '~/components/ui/FieldText.vue'
import FieldWhen from '~/components/ui/FieldWhen.vue'
import QuestionBox from '~/components/ui/QuestionBox.vue'
import SavedNote from '~/components/ui/SavedNote.vue'
import VerdictMark from '~/components/ui/VerdictMark.vue'
import { useAnswer } from '~/composables/answer'
import { useEntryForm } from '~/composables/entry-form'
import { usePicture } from '~/composables/picture'
import { useShop } from '~/state/shop'
import { useUi } from '~/state/ui'
import { gaugeEffectWords } from '~/words/effects'
import { isDue, scaleOf } from '~/lib/set-up'
import { boreWithU, BUDGET_WORDS, share, um, WARNING_WORDS } from '~/words/picture'

useHead({ title: 'Picture · Iron Nozzle' })
const route = useRoute()
const shop = useShop()
const ui = useUi()
const { data: setups, failure } = useAnswer('/api/setups')
const picture = usePicture()
const form = useEntryForm('/api/gauges')

const asked = route.query.nozzle ? String(route.query.nozzle) : null
const tag = ref<string | null>(asked ?? ui.lastNozzleTag ?? null)
const setupId = ref<number | null>(null)
const usable = computed(() => (setups.value ?? []).filter(s => !s.withdrawn))
watch(usable, list => {
  if (setupId.value === null || !list.some(s => s.id === setupId.value)) setupId.value = list[0]?.id ?? null
})
/** Measured as the next line of a gauge study, instead of as a gauge. */
const studyId = computed(() => (route.query.study ? Number(route.query.study) : null))
function takeTurn(turn: { tag: string; setupId: number }): void {
  tag.value = turn.tag
  setupId.value = turn.setupId
}
function another(): void {
  picture.close()
  bore.value = null
  ring.value = null
  saved.value = null
}
const setup = computed(() => usable.value.find(s => s.id === setupId.value) ?? null)
const scale = computed(() => setup.value && scaleOf(setup.value))
const due = computed(() => setup.value !== null && isDue(setup.value))
const nozzle = computed(() => shop.data?.nozzles.find(n => n.tag.toLowerCase() === tag.value?.toLowerCase()) ?? null)
const { data: page } = useAnswer('/api/nozzles/{tag}', {
  params: () => (nozzle.value ? { tag: nozzle.value.tag } : null),
})
const nozzles = computed(() => [
  { value: null as string | null, text: 'Choose the nozzle' },
  ...(shop.data?.nozzles ?? [])
    .filter(n => !n.retired || n.tag === tag.value)
    .map(n => ({
      value: n.tag as string | null,
      text: `${n.tag} · ${n.typeName} mm${n.place ? ` · ${n.place}` : ''}`,
    })),
])

/** Two points a known distance apart in this very picture, instead of the set-up's scale. */
const ownScale = ref(false)
const points = ref<{ x: number; y: number }[]>([])
const knownMm = ref<number | null>(null)
const uKnownMm = ref<number | null>(0.002)
watch(ownScale, on => {
  const { width: w, height: h } = picture.state
  points.value = on
    ? [
        { x: 0.25 * w, y: 0.85 * h },
        { x: 0.75 * w, y: 0.85 * h },
      ]
    : []
})
/** The scale that counts now; null while there is none, with the reason. */
const counts = computed<{ scale: Scale | null; why: string }>(() => {
  if (!setup.value) return { scale: null, why: 'Choose a set-up, or add one.' }
  if (ownScale.value) {
    if (knownMm.value === null || points.value.length < 2)
      return { scale: null, why: 'Set the two points and say how far apart they are.' }
    try {
      return { scale: twoPointScale(points.value[0]!, points.value[1]!, knownMm.value, uKnownMm.value ?? 0), why: '' }
    } catch (e) {
      return {
        scale: null,
        why: e instanceof InputError ? `The two points: ${e.allowed}.` : 'The two points say no scale.',
      }
    }
  }
  if (!scale.value) return { scale: null, why: `${setup.value.name} has no scale yet.` }
  const { focusesItself } = setup.value
  return { scale: scaleFor(scale.value, { focusesItself, isOfThisPicture: false }), why: '' }
})

const ring = shallowRef<Ellipse | null>(null)
const bore = shallowRef<Bore | null>(null)
const refused = ref('')
const saved = shallowRef<GaugeEffect | 'queued' | null>(null)
const shapes = ref<(typeof SHAPES)[number][]>([])
const note = ref('')
const inPlace = ref(false)
const takenAt = ref(new Date().toISOString())

async function take(file: Blob, name: string): Promise<void> {
  Object.assign(ui, { lastNozzleTag: tag.value ?? ui.lastNozzleTag })
  ring.value = null
  bore.value = null
  refused.value = ''
  saved.value = null
  ownScale.value = false
  form.reset()
  takenAt.value = new Date().toISOString()
  if (await picture.open(file, name)) await measure()
}
function said(reason: string): void {
  picture.close()
  picture.state.failure = reason
}

/** Without a ring it is looked for; with one, near it. */
async function measure(near: Ellipse | null = null): Promise<void> {
  const s = counts.value.scale
  if (!s || !picture.state.url) return
  refused.value = ''
  const { tone } = setup.value!
  const q = { ...s, tone: tone ?? ('srgb' as const), isToneStated: tone !== null, ...(near && { near }) }
  const found = await picture.work<Bore | NoBore>(async (api, progress) => await api.measure(q, progress))
  if (found === null) return
  if ('refused' in found) {
    bore.value = null
    refused.value = found.reason
    const { width: w, height: h } = picture.state
    ring.value ??= { x: w / 2, y: h / 2, a: h / 5, b: h / 5, angle: 0 }
    return
  }
  bore.value = found
  ring.value = found.ellipse
  shapes.value = shapesSeen(found)
}
watch(
  () => [counts.value.scale?.umPerPx, counts.value.scale?.uUmPerPx, setup.value?.tone],
  () => {
    if (picture.state.url && !picture.state.busy) void measure(ring.value)
  },
)

const budget = computed(() =>
  bore.value
    ? (Object.entries(bore.value.budget) as [keyof Budget, number][])
        .filter(([, v]) => v > 0.005)
        .sort((a, b) => b[1] - a[1])
    : [],
)
/** Pictures of this nozzle by this set-up since the last job: how they scatter beside what is claimed. */
const repeats = computed(() => {
  const p = page.value
  if (!p || !setup.value) return null
  const same = p.gaugePoints.filter(g => g.setup === setup.value!.name && Math.abs(g.wearKg - p.input.wearKg) < 1e-9)
  const values = same.map(g => g.valueMm!)
  const claims = same.map(g => partsOf(g.picture!.budget).randomMm)
  if (bore.value && saved.value === null) {
    values.push(bore.value.boreMm)
    claims.push(partsOf(bore.value.budget).randomMm)
  }
  if (values.length < 2) return null
  const mean = values.reduce((s, v) => s + v, 0) / values.length
  const scatter = Math.sqrt(values.reduce((s, v) => s + (v - mean) ** 2, 0) / (values.length - 1))
  const claimed = Math.sqrt(claims.reduce((s, v) => s + v * v, 0) / claims.length)
  return { n: values.length, mean, scatter, claimed }
})

/** What a gauge study of the set-up found, and what a forecast counts for this picture because of it, mm. */
const studied = computed(() => page.value?.scatter.setups.find(s => s.setupId === setupId.value)?.mm ?? null)
const claimsMm = computed(() => bore.value && partsOf(bore.value.budget).randomMm)
const countsMm = computed(() => bore.value && randomPart(bore.value.budget, studied.value))

const title = computed(() => {
  const b = bore.value
  if (b && nozzle.value) return `${nozzle.value.tag}: the mouth is ${boreWithU(b.boreMm, b.uMm)} wide.`
  if (b) return `The mouth is ${boreWithU(b.boreMm, b.uMm)} wide. Choose whose it is.`
  if (refused.value) return `${refused.value}. Put the ring on the mouth, or take another picture.`
  if (picture.state.failure) return picture.state.failure
  if (picture.state.url && counts.value.scale === null) return counts.value.why
  if (setups.value && usable.value.length === 0)
    return 'First add the microscope or camera as a set-up, and read its scale.'
  return 'Drop a picture of a clean, cold nozzle tip, seen from straight in front.'
})
const kind = computed(() => {
  if (refused.value || picture.state.failure) return 'look' as const
  return bore.value && bore.value.warnings.length > 0 ? ('look' as const) : null
})

const body = shallowRef<Record<string, unknown> | null>(null)
async function save(confirmed: string[] = []): Promise<void> {
  const b = bore.value
  const s = counts.value.scale
  if (!b || !s || !nozzle.value || !setup.value) return
  if (confirmed.length === 0) {
    const crop = await picture.work(api => api.crop(b, s.umPerPx))
    if (!crop) return
    body.value = {
      nozzleId: nozzle.value.id,
      occurredAt: takenAt.value,
      ...pictureGauge({
        bore: b,
        scale: s,
        setupId: setup.value.id,
        isOwnScale: ownScale.value,
        isInPlace: inPlace.value,
        crop,
      }),
      shape: shapes.value,
      note: note.value,
    }
  }
  const done = await form.send(body.value!, `Gauge ${nozzle.value.tag} by picture`, confirmed)
  if (done === null) return
  saved.value = done
  note.value = ''
}
/** Answers that change the entry: the ring again, or whose nozzle it was. */
function change(code: string): void {
  form.reset()
  void nextTick(() =>
    document.getElementById(code.endsWith(':other-nozzle') ? 'picture-nozzle' : 'measure-again')?.focus(),
  )
}
const stage = computed(() => (nozzle.value ? { nozzle: String(nozzle.value.id) } : null))
</script>

<template>
  <div>
    <InspectTabs :failure="failure" />
    <p class="mb-3 flex items-start gap-2 text-[15px] font-[650]" role="status">
      <VerdictMark v-if="kind" :verdict="kind" class="mt-[2px]" /><span :class="kind ? 'text-look' : ''">{{
        title
      }}</span>
    </p>
    <div class="grid grid-cols-[minmax(0,1fr)] items-start gap-[14px] lg:grid-cols-[minmax(0,1fr)_400px]">
      <div class="grid grid-cols-[minmax(0,1fr)] gap-3">
        <div class="no-print grid gap-3 sm:grid-cols-2">
          <FieldSelect id="picture-nozzle" v-model="tag" label="Nozzle" :options="nozzles" />
          <FieldSelect
            id="picture-setup"
            v-model="setupId"
            label="Set-up"
            :options="
              usable.length === 0
                ? [{ value: null, text: 'none yet' }]
                : usable.map(s => ({ value: s.id as number | null, text: s.name }))
            "
          />
        </div>
        <p v-if="setup" class="no-print text-sm text-ink2">
          <template v-if="counts.scale"
            >{{ counts.scale.umPerPx.toFixed(4) }} µm per pixel ± {{ share(counts.scale)
            }}{{ ownScale ? ', from this picture' : `, read ${day(scale!.at, shop.zone)}`
            }}{{ setup.focusesItself && !ownScale ? '; it focuses by itself, so no surer than 1 %' : '' }}.</template
          >
          <b v-else class="text-look">{{ counts.why }}</b>
          <b v-if="due && !ownScale" class="text-look"> Due again: read it anew.</b>
          {{ ' '
          }}<NuxtLink class="underline" :to="`/inspect/scale?setup=${setup.id}`">{{
            scale ? 'Read its scale' : 'Read its scale first'
          }}</NuxtLink>
        </p>
        <p v-else-if="setups" class="text-sm">
          <NuxtLink class="button first" to="/inspect/scale?add=setup">Add a set-up</NuxtLink>
        </p>
        <PictureDrop
          class="no-print"
          :stage="stage"
          :small="picture.state.url !== null"
          :stage-says="
            nozzle
              ? `The stand-in puts ${nozzle.tag} under it.`
              : 'Choose a nozzle: the stand-in puts it under the microscope.'
          "
          @picture="take"
          @failure="said"
        />
        <div v-if="picture.state.busy" class="flex items-center gap-3">
          <progress class="h-2 flex-1" :value="picture.state.share" max="1" aria-label="Measuring" />
          <button type="button" class="button" @click="picture.cancel()">Cancel</button>
        </div>
        <PictureView
          v-if="picture.state.url"
          :url="picture.state.url"
          :width="picture.state.width"
          :height="picture.state.height"
          :says="bore ? title : `Picture ${picture.state.name}`"
          :ring="ownScale && !counts.scale ? null : ring"
          :points="ownScale ? points : null"
          :bore="bore"
          :um-per-px="counts.scale?.umPerPx ?? null"
          @ring="e => (ring = e)"
          @point="(i, p) => (points = points.map((o, k) => (k === i ? p : o)))"
          @measure="measure(ring)"
        />
        <div v-if="picture.state.url" class="no-print flex flex-wrap items-center gap-2">
          <button
            id="measure-again"
            type="button"
            class="button"
            :disabled="!!picture.state.busy || !counts.scale"
            @click="measure(ring)"
          >
            Measure at the ring
          </button>
          <button type="button" class="button" :disabled="!!picture.state.busy || !counts.scale" @click="measure()">
            Find the mouth again
          </button>
          <label class="check"
            ><input v-model="ownScale" type="checkbox" /> scale from two points of this picture</label
          >
        </div>
        <div v-if="ownScale" class="grid gap-3 sm:grid-cols-2">
          <FieldNumber id="known" v-model="knownMm" label="The two points are apart" unit="mm" placeholder="1.00" />
          <FieldNumber id="known-u" v-model="uKnownMm" label="± (one standard uncertainty)" unit="mm" />
        </div>
      </div>
      <div class="grid grid-cols-[minmax(0,1fr)] gap-3">
        <PictureForStudy
          v-if="studyId !== null"
          :study-id="studyId"
          :bore-mm="picture.state.busy ? null : (bore?.boreMm ?? null)"
          :tag="tag"
          :setup-id="setupId"
          @turn="takeTurn"
          @saved="another"
        />
        <SavedNote
          v-if="saved"
          :of="`gauge of ${nozzle?.tag} by picture`"
          :text="
            saved === 'queued'
              ? null
              : `${gaugeEffectWords(saved)}. A mouth may be wider than the narrowest place, which the limit counts for.`
          "
          :look="false"
        >
          <NuxtLink class="button first" :to="`/inspect/${nozzle?.tag}`">See {{ nozzle?.tag }}</NuxtLink>
          <button type="button" class="button" @click="another">Another picture</button>
        </SavedNote>
        <template v-if="bore">
          <dl class="sheet grid grid-cols-2">
            <div class="col-span-2 px-3 py-2">
              <dt class="label">bore, from the mouth</dt>
              <dd class="text-[26px] leading-tight font-bold [font-stretch:88%]">{{ bore.boreMm.toFixed(4) }} mm</dd>
              <dd class="text-[12.5px] text-ink2">± {{ um(bore.uMm * 1000) }}, one standard uncertainty</dd>
            </div>
            <div class="border-t border-rule px-3 py-2">
              <dt class="label">longest, shortest</dt>
              <dd class="font-bold">{{ bore.largestMm.toFixed(3) }}, {{ bore.smallestMm.toFixed(3) }} mm</dd>
            </div>
            <div class="border-t border-l border-rule px-3 py-2">
              <dt class="label">out of round (half the difference)</dt>
              <dd class="font-bold">{{ um(((bore.largestMm - bore.smallestMm) / 2) * 1000) }}</dd>
            </div>
            <div class="border-t border-rule px-3 py-2">
              <dt class="label">worn edge around it</dt>
              <dd class="font-bold">{{ bore.flareMm === null ? 'none seen' : um(bore.flareMm * 1000) }}</dd>
            </div>
            <div class="border-t border-l border-rule px-3 py-2">
              <dt class="label">edge seen, pixels across</dt>
              <dd class="font-bold">{{ Math.round(bore.edgeShare * 100) }} %, {{ Math.round(bore.acrossPx) }} px</dd>
            </div>
            <div v-if="bore.chips.length > 0" class="col-span-2 border-t border-rule px-3 py-2">
              <dt class="label">chips</dt>
              <dd v-for="(c, i) in bore.chips" :key="i" class="font-bold">
                {{ um(c.deepMm * 1000) }} deep, {{ um(c.wideMm * 1000) }} wide, at {{ Math.round(c.atDeg) }}°
              </dd>
            </div>
          </dl>
          <ul v-if="bore.warnings.length > 0" class="grid gap-1" aria-label="Warnings">
            <li v-for="w in bore.warnings" :key="w" class="flex items-start gap-2 text-sm text-look">
              <VerdictMark verdict="look" :size="16" class="mt-[2px]" /><span
                ><b>{{ w }}.</b> {{ WARNING_WORDS[w] }}</span
              >
            </li>
          </ul>
          <p v-if="repeats" class="text-sm">
            <b>{{ repeats.n }} pictures</b> of {{ nozzle?.tag }} since its last job: mean
            {{ repeats.mean.toFixed(4) }} mm, they scatter by {{ um(repeats.scatter * 1000) }}; each claims
            {{ um(repeats.claimed * 1000) }} of its own.
          </p>
          <p v-if="studied !== null" class="text-sm">
            <b>By a gauge study</b> pictures by {{ setup?.name }} scatter by {{ um(studied * 1000) }}; a forecast counts
            {{ um(countsMm! * 1000) }} of scatter for this one, where its own parts claim {{ um(claimsMm! * 1000) }}.
          </p>
          <details class="sheet px-3 py-2">
            <summary class="min-h-[40px] cursor-pointer py-2 font-semibold">What the ± is made of</summary>
            <table class="record w-full">
              <thead>
                <tr>
                  <th scope="col">from</th>
                  <th scope="col" class="num">µm</th>
                </tr>
              </thead>
              <tbody>
                <tr v-for="[k, v] in budget" :key="k">
                  <td>{{ BUDGET_WORDS[k] }}</td>
                  <td class="num">{{ v.toFixed(2) }}</td>
                </tr>
                <tr>
                  <td><b>together</b> (root of the sum of squares)</td>
                  <td class="num">
                    <b>{{ (bore.uMm * 1000).toFixed(2) }}</b>
                  </td>
                </tr>
              </tbody>
            </table>
            <p v-if="setup?.tone === null" class="py-1 text-xs text-ink2">
              Nobody has said how {{ setup.name }} stores brightness: it is read as a camera file, and half of what the
              other reading would change counts. State it with the set-up.
            </p>
          </details>
          <form
            v-if="!saved && studyId === null"
            class="sheet no-print grid gap-3 p-3"
            aria-label="Gauge by picture"
            @submit.prevent="save()"
          >
            <p class="border-l-4 border-look pl-3 text-sm">
              <b>Clean and cold.</b> Let it cool to touch before the lens comes near. A picture shows the mouth; a pin
              finds the narrowest place. The maker's manual comes first.
            </p>
            <fieldset class="flex flex-wrap gap-x-3">
              <legend class="label">Seen</legend>
              <label v-for="s in SHAPES" :key="s" class="check"
                ><input v-model="shapes" type="checkbox" :value="s" /> {{ s }}</label
              >
            </fieldset>
            <label class="check"
              ><input v-model="inPlace" type="checkbox" /> photographed in place on its head, the printer's front at the
              bottom</label
            >
            <p v-if="inPlace" class="text-sm text-ink2">
              Long axis at {{ Math.round(bore.longDeg) }}°, clockwise from the right.
            </p>
            <FieldWhen id="picture-when" v-model="takenAt" label="Taken" :error="form.errors.value.occurredAt" />
            <FieldText id="picture-note" v-model="note" label="Note" :error="form.errors.value.note" />
            <p v-for="(e, f) in form.errors.value" :key="f" class="text-sm font-semibold text-stop" role="alert">
              {{ e }}
            </p>
            <QuestionBox :problem="form.problem.value" :busy="form.busy.value" @confirm="save" @local="change" />
            <button type="submit" class="button first" :disabled="form.busy.value || !nozzle || !!picture.state.busy">
              {{ nozzle ? `Save the gauge of ${nozzle.tag}` : 'Choose the nozzle first' }}
            </button>
          </form>
        </template>
        <PictureRow v-if="page" narrow :points="page.gaugePoints" :tag="page.nozzle.tag" :zone="shop.zone" />
      </div>
    </div>
  </div>
</template>
