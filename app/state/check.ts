/**
 * The check that is being made: what it is of and what was answered. It stays while a line's fact is changed on another
 * page, and over a reload of the tab; the file itself is with the scans.
 */
import { useSessionStorage } from '@vueuse/core'
import { defineStore } from 'pinia'
import type { Answer, Answered } from '#core/precheck'

export interface Check {
  printerId: number | null
  headId: number | null
  spoolId: number | null
  materialId: number | null
  printsFrom: 'room' | 'dry box' | 'dryer'
  hours: number | null
  jobId: number | null
  fileId: number | null
  tool: number
  nozzleC: number | null
  bedC: number | null
  chamberC: number | null
  note: string
  answers: Answer[]
  /** What the answers were given to. */
  answered: Answered
}
const NOTHING: Check = {
  printerId: null,
  headId: null,
  spoolId: null,
  materialId: null,
  printsFrom: 'room',
  hours: null,
  jobId: null,
  fileId: null,
  tool: 0,
  nozzleC: null,
  bedC: null,
  chamberC: null,
  note: '',
  answers: [],
  answered: { place: '', work: '', lines: [] },
}

export const useCheck = defineStore('check', () => {
  const v = useSessionStorage<Check>('check', { ...NOTHING }, { mergeDefaults: true })
  /** Stored: the next one is of another job. */
  function next(): void {
    v.value = { ...NOTHING, printerId: v.value.printerId, headId: v.value.headId }
  }
  return { v, next }
})
