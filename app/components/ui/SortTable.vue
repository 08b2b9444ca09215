<script setup lang="ts" generic="T extends { id: number }">
/**
 * A table whose columns can be put in order: as given at first, then by the column that is pressed, the other way at
 * the second press, as given at the third. What is not known stands last either way.
 */
import { ArrowDown, ArrowUp } from '@lucide/vue'
import {
  createSortedRowModel,
  rowSortingFeature,
  sortFn_alphanumeric,
  sortFn_basic,
  tableFeatures,
  useTable,
} from '@tanstack/vue-table'
import { toRef } from 'vue'

export interface SortColumn<R> {
  key: string
  label: string
  /** Numbers stand to the right. */
  num?: boolean
  /** What it is put in order by; without it the column cannot be. */
  by?: (row: R) => string | number | null
  /** What its cells say, where that is not what it is put in order by; a cell with more in it has a slot. */
  text?: (row: R) => string
  /** The heading is for screen readers alone. */
  hidden?: boolean
}
const props = defineProps<{
  rows: readonly T[]
  columns: readonly SortColumn<T>[]
  /** What the table is, for who cannot see it. */
  label: string
  /** Narrower than this it pans sideways. */
  minWidth: number
  rowClass?: (row: T) => string
}>()
defineSlots<Record<string, (cell: { row: T }) => unknown>>()

const features = tableFeatures({
  rowSortingFeature,
  sortedRowModel: createSortedRowModel(),
  sortFns: { alphanumeric: sortFn_alphanumeric, basic: sortFn_basic },
})
const table = useTable({
  features,
  data: toRef(props, 'rows'),
  columns: props.columns.map(c => ({
    id: c.key,
    accessorFn: (row: T) => c.by?.(row) ?? undefined,
    enableSorting: c.by !== undefined,
    sortFn: c.num ? ('basic' as const) : ('alphanumeric' as const),
    sortUndefined: 'last' as const,
    sortDescFirst: false,
  })),
})
const columnOf = (key: string) => table.getColumn(key)!
const ORDER = { asc: 'ascending', desc: 'descending' } as const
function orderOf(key: string): 'ascending' | 'descending' | 'none' {
  const sorted = columnOf(key).getIsSorted()
  return sorted === false ? 'none' : ORDER[sorted]
}
const name = (c: SortColumn<T>) => `cell-${c.key}`
</script>

<template>
  <div class="relative overflow-x-auto" tabindex="0" role="group" :aria-label="`${label}, pans sideways`">
    <table class="record sheet" :style="{ minWidth: `${minWidth}px` }">
      <thead>
        <tr>
          <th
            v-for="c in columns"
            :key="c.key"
            :class="c.num ? 'num' : ''"
            :aria-sort="c.by ? orderOf(c.key) : undefined"
          >
            <button
              v-if="c.by"
              type="button"
              class="inline-flex min-h-[32px] items-center gap-1 underline decoration-dotted underline-offset-4 hover:decoration-solid"
              @click="columnOf(c.key).toggleSorting()"
            >
              <ArrowUp v-if="orderOf(c.key) === 'ascending'" :size="14" aria-hidden="true" />
              <ArrowDown v-else-if="orderOf(c.key) === 'descending'" :size="14" aria-hidden="true" />{{ c.label }}
            </button>
            <span v-else :class="c.hidden ? 'sr-only' : ''">{{ c.label }}</span>
          </th>
        </tr>
      </thead>
      <tbody data-list>
        <tr v-for="r in table.getRowModel().rows" :key="r.original.id" :class="rowClass?.(r.original)">
          <td v-for="c in columns" :key="c.key" :class="c.num ? 'num' : ''">
            <slot :name="name(c)" :row="r.original">{{ c.text?.(r.original) ?? c.by?.(r.original) }}</slot>
          </td>
        </tr>
      </tbody>
    </table>
  </div>
</template>
