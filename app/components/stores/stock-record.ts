/** The form of a thing that is kept on the shelf. */
import { STOCK_KINDS, STOCK_UNITS, TAGGED_KINDS, USED_BY, type StockKind } from '#core/stock'
import type { StockLine } from '#shared/answers/stock'
import type { ShopData } from '~/state/shop'
import type { FormField, OpenRecord } from '~/components/stores/form-field'

type Values = Record<string, unknown>
const isTagged = (v: Values) => TAGGED_KINDS.includes(v.kind as StockKind)

const fieldsOf = (types: ShopData['types'], currency: string, isOld: boolean): FormField[] => [
  {
    key: 'kind',
    label: 'What it is',
    kind: 'select',
    options: STOCK_KINDS.map(value => ({ value, text: value })),
    then: v => {
      if (v.kind !== 'nozzle') v.nozzleTypeId = null
      if (isTagged(v)) Object.assign(v, { unit: 'pieces', usedBy: null })
    },
  },
  {
    key: 'nozzleTypeId',
    label: 'Nozzle type',
    kind: 'select',
    options: [{ value: null, text: 'choose' }, ...types.map(t => ({ value: t.id, text: t.name }))],
    hint: 'counted by their tags: those on the shelf',
    when: v => v.kind === 'nozzle',
    then: v => {
      const type = types.find(t => t.id === v.nozzleTypeId)
      if (type && String(v.name).trim() === '') v.name = type.name
    },
  },
  { key: 'name', label: 'Name', kind: 'text' },
  {
    key: 'unit',
    label: 'Counted in',
    kind: 'select',
    options: STOCK_UNITS.map(value => ({ value, text: value })),
    when: v => !isTagged(v),
  },
  { key: 'minimum', label: 'Minimum', kind: 'number', hint: 'below it it is due; empty: none' },
  {
    key: 'usedBy',
    label: 'One is used up by each',
    kind: 'select',
    options: [{ value: null, text: 'nothing by itself' }, ...USED_BY.map(value => ({ value, text: value.slice(2) }))],
    hint: 'upkeep names what it takes in its own plan',
    when: v => !isTagged(v),
  },
  { key: 'price', label: 'Price of one', kind: 'number', unit: currency },
  { key: 'pricedOn', label: 'Price of the day', kind: 'text', hint: 'year-month-day, as 2026-11-30' },
  { key: 'note', label: 'Note', kind: 'text' },
  ...(isOld ? [{ key: 'withdrawn', label: 'Kept no longer', kind: 'check' as const }] : []),
]

const body = (v: Values): Values => ({ ...v, pricedOn: v.pricedOn === '' ? null : v.pricedOn })
const says = (v: Values) => String(v.name)

/** What opens: a new thing, nozzles of a type that had no line yet, or what is edited. */
export function stockRecord(line: StockLine | null, shop: ShopData): OpenRecord {
  const { types, settings } = shop
  const fields = fieldsOf(types, settings.currency, line?.id != null)
  const start = {
    kind: line?.kind ?? 'belt',
    nozzleTypeId: line?.nozzleTypeId ?? null,
    name: line?.name ?? '',
    unit: line?.unit ?? 'pieces',
    minimum: line?.minimum ?? null,
    usedBy: line?.usedBy ?? null,
    price: line?.price?.on ? line.price.each : null,
    pricedOn: line?.price?.on ?? '',
    note: line?.note ?? '',
  }
  if (line?.id == null || line.version === null)
    return {
      title: line ? `Keep ${line.name}` : 'Keep something on the shelf',
      fields,
      start,
      says,
      body,
      route: '/api/stock-items',
    }
  return {
    title: `Edit ${line.name}`,
    fields,
    start: { ...start, withdrawn: line.withdrawn },
    says,
    body,
    edit: { kind: 'stock-items', id: line.id, version: line.version },
  }
}
