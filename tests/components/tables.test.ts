import { flushPromises } from '@vue/test-utils'
import { expect, test } from 'vitest'
import SpoolShelf from '~/components/stores/SpoolShelf.vue'
import SortTable, { type SortColumn } from '~/components/ui/SortTable.vue'
import TheToasts from '~/components/ui/TheToasts.vue'
import ToastLine from '~/components/ui/ToastLine.vue'
import { useUi } from '~/state/ui'
import { shown, words } from './support'

interface Row {
  id: number
  name: string
  density: number | null
}
const rows: Row[] = [
  { id: 1, name: 'PPS-CF20', density: 1.4 },
  { id: 2, name: 'PA6-CF20', density: null },
  { id: 3, name: 'PETG', density: 1.27 },
]
const columns: SortColumn<Row>[] = [
  { key: 'name', label: 'material', by: r => r.name },
  { key: 'density', label: 'density', num: true, by: r => r.density },
  { key: 'edit', label: 'edit', hidden: true },
]
const table = (more: object = {}) =>
  shown(SortTable as never, { props: { rows, columns, label: 'Materials', minWidth: 400, ...more } as never })
type Table = ReturnType<typeof table>
const order = (w: Table) => w.findAll('tbody tr').map(r => r.find('td').text())
const heading = (w: Table, name: string) => w.findAll('th').find(h => h.text() === name)!

test('as given at first; by a column, the other way, and as given again', async () => {
  const w = table()
  expect(order(w)).toEqual(['PPS-CF20', 'PA6-CF20', 'PETG'])
  expect(heading(w, 'material').attributes('aria-sort')).toBe('none')
  await heading(w, 'material').get('button').trigger('click')
  expect(order(w)).toEqual(['PA6-CF20', 'PETG', 'PPS-CF20'])
  expect(heading(w, 'material').attributes('aria-sort')).toBe('ascending')
  await heading(w, 'material').get('button').trigger('click')
  expect(order(w)).toEqual(['PPS-CF20', 'PETG', 'PA6-CF20'])
  expect(heading(w, 'material').attributes('aria-sort')).toBe('descending')
  await heading(w, 'material').get('button').trigger('click')
  expect(order(w)).toEqual(['PPS-CF20', 'PA6-CF20', 'PETG'])
})
test('what is not known stands last, whichever way', async () => {
  const w = table()
  for (const way of ['ascending', 'descending']) {
    await heading(w, 'density').get('button').trigger('click')
    expect(heading(w, 'density').attributes('aria-sort')).toBe(way)
    expect(order(w).at(-1), way).toBe('PA6-CF20')
  }
})
test('a column without an order has no button; rows that come later are put in their place', async () => {
  const w = table()
  expect(heading(w, 'edit').find('button').exists()).toBe(false)
  await heading(w, 'material').get('button').trigger('click')
  await w.setProps({ rows: [...rows, { id: 4, name: 'ABS', density: 1.04 }] } as never)
  expect(order(w)).toEqual(['ABS', 'PA6-CF20', 'PETG', 'PPS-CF20'])
})

test('what a save says is shown and read out, and closed by its button', async () => {
  const w = shown(TheToasts, { attachTo: document.body })
  useUi().say('N-014 is retired. Its record stays.')
  await flushPromises()
  expect(document.querySelector('[role=status]')!.textContent).toContain('N-014 is retired.')
  w.unmount()
  const line = shown(ToastLine, { props: { text: 'Kept here', kind: 'look' } })
  await line.get('button').trigger('click')
  expect(line.emitted('closeToast')).toHaveLength(1)
})

test('a spool says what its grams rest on; no whole number where nobody weighed it', () => {
  const spool = (more: object) => ({
    id: 1,
    tag: 'S-1',
    material: 'PLA',
    densityGCm3: 1.24,
    diameterMm: 1.75,
    netG: 1000,
    tareG: 200,
    leftG: 1000,
    leftBy: 'label',
    place: null,
    ...more,
  })
  const of = (more: object) =>
    words(shown(SpoolShelf, { props: { shop: { spools: [spool(more)] }, find: '', by: 'tag' } as never }))
  expect(of({})).toContain('1000 g by its label of 1000 g')
  expect(of({ tareG: null })).toContain('weight empty not known')
  expect(of({ tareG: null })).not.toContain('1000 g of 1000 g')
  expect(of({ leftG: 640, leftBy: 'weighing' })).toContain('640 g of 1000 g')
  expect(of({ leftG: 640, leftBy: 'difference of weighings', tareG: null })).toContain('by its label and weighings')
})

test('spools are found by tag or material, and stand in the order that is asked for', () => {
  const spool = (id: number, material: string, leftG: number) => ({
    ...{ id, tag: `S-0${id}`, material, leftG, netG: 1000, tareG: 200, leftBy: 'label', diameterMm: 1.75 },
    ...{ densityGCm3: 1.2, place: null },
  })
  const shop = { spools: [spool(1, 'PETG', 900), spool(2, 'PA6-CF20', 40), spool(3, 'PA12', 500)] }
  const tags = (find: string, by: string) =>
    [...words(shown(SpoolShelf, { props: { shop, find, by } as never })).matchAll(/S-0\d/g)].map(m => m[0])
  const each = (list: string[]) => list.filter((t, i) => list.indexOf(t) === i)
  expect(each(tags('', 'tag'))).toEqual(['S-01', 'S-02', 'S-03'])
  expect(each(tags('', 'least left'))).toEqual(['S-02', 'S-03', 'S-01'])
  expect(each(tags('', 'material'))).toEqual(['S-03', 'S-02', 'S-01'])
  expect(each(tags('pa', 'tag'))).toEqual(['S-02', 'S-03'])
})
