/**
 * The bed: a plane through its heights, which screw by how much, what is left, and how Z and the probe wander. mm from
 * the front left corner of the bed; heights upwards, towards the nozzle. What is outside its range is refused by an
 * InputError that names the field and what is allowed; sources stand at the head of each file.
 *
 * @example
 * const bed = { widthMm: 300, depthMm: 300, screws: [], pitchMm: 0.7, clockwise: 'lowers' as const }
 * const at = (xMm: number, yMm: number, gapMm: number) => ({ xMm, yMm, gapMm })
 * const m = { how: 'feeler' as const, wantedMm: 0.1, rounds: [[at(20, 20, 0.1), at(280, 20, 0.1), at(150, 280, 0.3)]] }
 * levelFound(m, bed).rangeMm // 0.2
 */
export { FEWEST_APART_MM, fitPlane, HEIGHT_MM, PLACE_MM } from './plane'
export type { BedPoint, Place, Plane } from './plane'
export {
  BED_SIDE_MM,
  checkBed,
  CLOCKWISE,
  COARSE_PITCH_MM,
  MOST_SCREWS,
  PARTS_OF_TURN,
  PITCH_MM,
  screwTurns,
  turnWords,
} from './screws'
export type { Bed, Clockwise, ScrewTurn } from './screws'
export { MESH_SIDE, MESH_TEXT, readMesh } from './mesh-text'
export type { MeshText } from './mesh-text'
export {
  checkLevel,
  FEELER_POINTS,
  FEELER_U_MM,
  FOLLOWS_MM,
  GAP_FELT_MM,
  LEVEL_BED_C,
  LEVEL_MM,
  levelFound,
  levelVerdict,
  meshPoints,
  MOST_ROUNDS,
} from './level'
export type { FeelerLevel, LevelFound, LevelMeasured, LevelVerdict, MeshLevel } from './level'
export { DRIFT_MM, driftOf, FEWEST_OF_DRIFT, lostZ, Z_WHYS } from './drift'
export type { AfterPowerOff, Drift, DriftPoint, ZWhy } from './drift'
