/**
 * Numbers without a unit: random draws, the normal, the chi-square and Student's distribution, minimum, root, least
 * squares, and what every computation refuses by. What is outside its range is refused by an InputError that names the
 * field and what is allowed; sources stand at the head of each file.
 */
export { mulberry32, normalDraw, shuffled } from './random'
export { fastNormalCdf, inverseNormal, normalCdf, ONE_SIDED_90 } from './normal'
export { chiSquareCdf, DEGREES, gamma, inverseChiSquare, lnGamma } from './gamma'
export { STUDENT_DEGREES, studentCdf } from './student'
export { minimise } from './minimise'
export { bisect } from './bisect'
export { rootOf } from './root'
export { leastSquares, solve } from './least-squares'
export type { LeastSquares } from './least-squares'
export { once } from './once'
export { symmetricEigen } from './symmetric-eigen'
export { AT_MS, CHANCE, InputError, need, needEach, needIfKnown, needOne } from './need'
