/** Steps and fields with what most of them have. */
import { cautionsNamed } from '../cautions'
import type { Field, Hazard, Step } from './types'

export const step = (key: string, title: string, more: Partial<Step> = {}): Step => ({
  key,
  title,
  says: [],
  hazards: [],
  fields: [],
  wait: null,
  proof: null,
  after: null,
  ...more,
})

/** Hazards by their keys in the catalogue. */
export const hazards = (...keys: string[]): Hazard[] =>
  cautionsNamed(...keys).map(({ hazard, what }) => ({ hazard, what }))

type Asked = Partial<Pick<Field, 'help' | 'required'>>
const asked = (key: string, label: string, more: Asked) => ({ key, label, help: '', required: false, ...more })
export const field = {
  text: (key: string, label: string, more: Asked = {}): Field => ({ ...asked(key, label, more), kind: 'text' }),
  photo: (key: string, label: string, more: Asked = {}): Field => ({ ...asked(key, label, more), kind: 'photo' }),
  number: (
    key: string,
    label: string,
    [low, high]: readonly [number, number],
    unit: string,
    more: Asked = {},
  ): Field => ({
    ...asked(key, label, more),
    kind: 'number',
    unit,
    low,
    high,
  }),
  choice: (
    key: string,
    label: string,
    choices: readonly { value: string; text: string }[],
    more: Asked = {},
  ): Field => ({ ...asked(key, label, more), kind: 'choice', choices }),
}
