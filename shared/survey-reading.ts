/** What a stored survey comes to: one reading of it for the limits and the screens. */
import { surveyFound, type SurveyFound } from '#core/chamber'
import type { SurveyLine } from './answers/chambers'

export type StoredSurvey = Pick<
  SurveyLine,
  'timesS' | 'roomC' | 'probes' | 'shielded' | 'probeUC' | 'tauS' | 'bedTrueC' | 'chamberTrueC'
>

/** Null where its numbers do not read any more: no bad row takes a list down. */
export function foundOf({ bedTrueC, chamberTrueC, ...s }: StoredSurvey): SurveyFound | null {
  try {
    return surveyFound({ ...s, bedC: bedTrueC, chamberSetC: chamberTrueC })
  } catch {
    return null
  }
}
