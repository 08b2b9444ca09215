/**
 * How sure a gauge is: the list of a study, analysis of variance, what the scatter is made of, and what it sets. mm.
 * What is outside its range is refused by an InputError that names the field and what is allowed; sources stand at the
 * head of each file.
 */
export { crossed, oneWay } from './anova'
export type { Crossed, MeanSquare } from './anova'
export { componentsOf } from './components'
export type { Components, Negative, Part } from './components'
export { pinScatter } from './pins'
export type { PinPair, PinScatter } from './pins'
export { MOST_LINES, STUDY_NOZZLES, STUDY_PEOPLE, STUDY_REPEATS, studyList } from './plan'
export type { StudyLine } from './plan'
export { inOrder, readBoreMm, STUDY_METHODS, studyReading, studyResult, TELLS_AT } from './study'
export type { ReadLine, StudyMethod, StudyReading, StudyReadings, StudyResult } from './study'
