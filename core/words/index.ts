/** Words for numbers and units, and pieces of sentences: one set for core, server and screens. */
export {
  celsius,
  celsiusDown,
  chance,
  duration,
  flow,
  FOR_GOOD_H,
  grams,
  hours,
  kg,
  kgBetween,
  leftWords,
  metres,
  mm,
  mmNumber,
  money,
  offBy,
  percent,
  smallChance,
  water,
} from './numbers'
export { capital, counted, listed, zoneWord } from './sentences'
