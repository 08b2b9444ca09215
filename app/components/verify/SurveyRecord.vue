<script setup lang="ts">
/** The surveys of one chamber as they were read, the latest first, those struck out among them. */
import { placesOf, type SurveyFound } from '#core/chamber'
import { ONE_SIDED_90 } from '#core/numeric'
import { counted } from '#core/words'
import type { SurveyLine } from '#shared/answers/chambers'
import { when } from '#shared/time'
import { useShop } from '~/state/shop'
import { isOld, placeOf, shareWords, stateWords, steadyWords } from '~/words/chamber'

defineProps<{ surveys: readonly { s: SurveyLine; found: SurveyFound | null }[]; printer: string }>()
defineEmits<{ strike: [id: number] }>()
const shop = useShop()
</script>

<template>
  <section class="mt-5" aria-label="Surveys">
    <h2>{{ counted(surveys.length, 'survey') }} of {{ printer }}</h2>
    <div v-if="surveys.length > 0" class="relative mt-1 overflow-x-auto" tabindex="0" role="group" aria-label="Surveys">
      <table class="record sheet min-w-[720px]">
        <thead>
          <tr>
            <th scope="col">surveyed</th>
            <th scope="col">state, set to</th>
            <th scope="col">probes</th>
            <th scope="col">comes to</th>
            <th scope="col"><span class="sr-only">strike</span></th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="{ s, found } in surveys" :key="s.id" :class="s.struck ? 'struck' : ''">
            <td>
              {{ when(s.at, shop.zone) }}<span class="block text-xs text-ink2">{{ s.person }}</span>
            </td>
            <td>
              {{ stateWords(s.state)
              }}<span class="block text-xs text-ink2"
                >bed {{ s.bedC }} °C{{ s.chamberSetC === null ? '' : `, chamber ${s.chamberSetC} °C`
                }}{{ s.correctedBy ? `, corrected by ${s.correctedBy}` : ', as shown'
                }}{{
                  s.checkThen && !s.correctedBy.endsWith(s.checkThen) ? ` (then by the check of ${s.checkThen})` : ''
                }}; {{ s.shielded ? 'shielded' : 'in sight of the bed' }}</span
              >
            </td>
            <td>
              <template v-if="found"
                ><span v-for="p in found.probes" :key="p.probe.name" class="block whitespace-nowrap"
                  >{{ p.probe.name }}: <span class="text-ink2">{{ steadyWords(p) }}</span></span
                ></template
              ><span v-else class="text-look">its numbers cannot be read any more</span>
            </td>
            <td>
              <span v-if="s.struck">struck out: {{ s.struck.reason }}</span>
              <template v-else-if="found">
                <span v-for="p in placesOf(found)" :key="p.place" class="block"
                  >{{ placeOf(p.place) }}: {{ shareWords(found.by, p.value, ONE_SIDED_90 * p.u) }}</span
                >
                <span v-if="s.changed.length > 0" class="block text-look"
                  >stale: changed since, {{ s.changed.join('; ') }}</span
                >
                <span v-else-if="isOld(s.at)" class="block text-look">over a year old: survey it again</span>
                <span v-else-if="s.state.gapMm > 0" class="block text-ink2">a door ajar: no source of limits</span>
              </template>
              <span v-if="s.note" class="block text-xs text-ink2">{{ s.note }}</span>
            </td>
            <td class="no-print">
              <button v-if="!s.struck" type="button" class="button plain" @click="$emit('strike', s.id)">
                Strike out
              </button>
            </td>
          </tr>
        </tbody>
      </table>
    </div>
  </section>
</template>
