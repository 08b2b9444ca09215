<script setup lang="ts">
/** Someone else changed the record meanwhile: both versions, and which to go on with. */
import { computed } from 'vue'
import { saidValue } from '#shared/share'

const props = defineProps<{ rows: readonly { key: string; label: string; theirs: unknown; mine: unknown }[] }>()
const emit = defineEmits<{ keep: []; take: [] }>()
const different = computed(() => props.rows.filter(r => saidValue(r.key, r.theirs) !== saidValue(r.key, r.mine)))
</script>

<template>
  <div role="alert" class="border-2 border-look p-3">
    <p class="font-semibold text-look">Someone changed this meanwhile. Nothing was overwritten.</p>
    <table class="record my-2">
      <thead>
        <tr>
          <th>field</th>
          <th>stored now</th>
          <th>yours</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="r in different" :key="r.key">
          <td>{{ r.label }}</td>
          <td>{{ saidValue(r.key, r.theirs) }}</td>
          <td>{{ saidValue(r.key, r.mine) }}</td>
        </tr>
      </tbody>
    </table>
    <div class="flex flex-wrap gap-2">
      <button type="button" class="button" @click="emit('keep')">Keep mine, then save</button
      ><button type="button" class="button" @click="emit('take')">Take what is stored</button>
    </div>
  </div>
</template>
