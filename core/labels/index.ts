/**
 * Labels: what stands where on each and on a sheet of them. mm. What is outside its range is refused by an InputError
 * that names the field and what is allowed; sources stand at the head of each file.
 */
export {
  A4,
  checkLabel,
  GAP_MM,
  gridOf,
  LABEL_HEIGHT_MM,
  LABEL_SIZES,
  LABEL_WIDTH_MM,
  labelPlaces,
  MARGIN_MM,
  middleGrid,
  MOST_LABELS,
} from './sheet'
export type { LabelPlace, LabelSize, SheetGrid } from './sheet'
export { LEAST_MODULE_MM, labelFace, moduleMm, QUIET_MODULES, textMm, wrapped } from './face'
export type { Box, LabelFace } from './face'
