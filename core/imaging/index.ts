/**
 * Pictures of nozzle mouths: scale, edge, ellipse, bore with its uncertainty. px, µm per pixel, mm; angles in degrees
 * clockwise from the right as seen. What is outside its range is refused by an InputError that names the field and what
 * is allowed; what is a picture but shows no mouth or no scale comes back as a refusal with its reason. Sources stand
 * at the head of each file.
 */
export { FEW_PX, FEWEST_PX, IMAGING_METHOD, measureBore, NEAR_PX, U_UM_PER_PX, UM_PER_PX, WARNINGS } from './bore'
export type { Bore, BoreQuestion, NoBore, Warning } from './bore'
export type { Budget } from './budget'
export type { Chip } from './chips'
export { fitEllipse, PLACE_PX } from './ellipse'
export type { Ellipse } from './ellipse'
export { MOST_PIXELS, SIDE_PX, TONES } from './picture'
export type { Pixels, Tone } from './picture'
export { pinScale } from './pin'
export { KNOWN_MM, stageScale, twoPointScale, U_KNOWN_MM } from './scale'
export type { NoScale, Scale, StageScale } from './scale'
export { AUTOFOCUS_U, isScaleDue, partsOf, randomPart, SCALE_DAYS, SCALE_DAYS_RANGE, scaleFor } from './set-up'
export type { UncertaintyParts } from './set-up'
