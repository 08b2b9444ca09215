<script setup lang="ts">
/** The walls of a plan: what each is built of from the inside out, and what would be put on it. */
import { MOST_LAYERS, MOST_WALLS, WALL_FACES, WALL_MATERIAL_NAMES, type WallFace } from '#core/chamber'
import { options } from '~/components/verify/check-form'
import type { TypedLayer, TypedWall } from '~/components/verify/plan-form'
import FieldNumber from '~/components/ui/FieldNumber.vue'
import FieldSelect from '~/components/ui/FieldSelect.vue'
import FieldText from '~/components/ui/FieldText.vue'

defineProps<{ errors: Record<string, string | undefined> }>()
const walls = defineModel<TypedWall[]>({ required: true })
const FACE_WORDS: Record<WallFace, string> = { side: 'a side', top: 'over it', bottom: 'under it' }
const LISTS = [
  { key: 'layers', says: 'built of, from the inside out', add: 'Add a layer' },
  { key: 'added', says: 'would be put on it', add: 'Put a layer on' },
] as const
const newLayer = (): TypedLayer => ({ material: 'mineral wool', mm: 20 })
function addWall(): void {
  walls.value.push({
    name: `wall ${walls.value.length + 1}`,
    face: 'side',
    areaM2: null,
    layers: [{ material: 'acrylic', mm: 4 }],
    added: [],
  })
}
/** The same on every wall: a lining is rarely put on one alone. */
function everywhere(i: number): void {
  const { added } = walls.value[i]!
  for (const w of walls.value) w.added = added.map(l => ({ ...l }))
}
</script>

<template>
  <fieldset class="grid grid-cols-[minmax(0,1fr)] gap-2">
    <legend class="mb-1 text-[15px] font-[680]">Walls</legend>
    <details v-for="(w, i) in walls" :key="i" class="border-t border-rule" :open="i === 0">
      <summary class="min-h-[40px] content-center text-sm">
        <b>{{ w.name || `wall ${i + 1}` }}</b>: {{ w.layers.map(l => `${l.mm ?? '?'} mm ${l.material}`).join(', ')
        }}{{ w.added.length > 0 ? `; + ${w.added.map(l => `${l.mm ?? '?'} mm ${l.material}`).join(', ')}` : '' }}
        <span v-if="Object.keys(errors).some(f => f.startsWith(`walls.${i}.`))" class="font-semibold text-stop">
          something is not right here
        </span>
      </summary>
      <div class="grid grid-cols-3 items-start gap-2 pb-2" role="group" :aria-label="`Wall ${w.name || i + 1}`">
        <FieldText :id="`wall-name-${i}`" v-model="w.name" label="Wall" :error="errors[`walls.${i}.name`]" />
        <FieldSelect
          :id="`wall-face-${i}`"
          v-model="w.face"
          label="Face"
          :options="options(WALL_FACES, f => FACE_WORDS[f])"
          :error="errors[`walls.${i}.face`]"
        />
        <FieldNumber
          :id="`wall-area-${i}`"
          v-model="w.areaM2"
          label="Area"
          unit="m²"
          :error="errors[`walls.${i}.areaM2`]"
        />
        <div v-for="list in LISTS" :key="list.key" class="col-span-3 grid gap-2">
          <p class="text-xs text-ink2">{{ list.says }}</p>
          <div
            v-for="(l, k) in w[list.key]"
            :key="k"
            class="grid grid-cols-[minmax(0,1fr)_110px_auto] items-start gap-2"
          >
            <FieldSelect
              :id="`wall-${list.key}-${i}-${k}`"
              v-model="l.material"
              :label="`${k + 1}`"
              :options="options(WALL_MATERIAL_NAMES)"
              :error="errors[`walls.${i}.${list.key}.${k}.material`]"
            />
            <FieldNumber
              :id="`wall-${list.key}-mm-${i}-${k}`"
              v-model="l.mm"
              label="thick"
              unit="mm"
              :error="errors[`walls.${i}.${list.key}.${k}.mm`]"
            />
            <button
              type="button"
              class="button plain mt-[18px]"
              :aria-label="`Take ${l.material} out of ${w.name}`"
              @click="w[list.key].splice(k, 1)"
            >
              ×
            </button>
          </div>
          <p class="flex flex-wrap gap-2">
            <button
              type="button"
              class="button"
              :disabled="w[list.key].length >= MOST_LAYERS"
              @click="w[list.key].push(newLayer())"
            >
              {{ list.add }}
            </button>
            <button
              v-if="list.key === 'added' && w.added.length > 0"
              type="button"
              class="button"
              @click="everywhere(i)"
            >
              The same on every wall
            </button>
          </p>
        </div>
        <p v-if="errors[`walls.${i}.layers`]" class="col-span-3 text-sm font-semibold text-stop" role="alert">
          {{ errors[`walls.${i}.layers`] }}
        </p>
        <p class="col-span-3">
          <button v-if="walls.length > 1" type="button" class="button plain" @click="walls.splice(i, 1)">
            Take this wall out
          </button>
        </p>
      </div>
    </details>
    <p>
      <button type="button" class="button" :disabled="walls.length >= MOST_WALLS" @click="addWall">Add a wall</button>
    </p>
    <p v-if="errors.walls" class="text-sm font-semibold text-stop" role="alert">{{ errors.walls }}</p>
  </fieldset>
</template>
