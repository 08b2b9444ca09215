/**
 * Heat through a wall of layers: the film inside, each layer, each gap of air, the film outside, in series. W, m², m,
 * °C. Conductivities and emissivities are handbook values for such materials, from memory; a maker's data sheet comes
 * first. Series of resistances: Incropera & DeWitt, section 3.1.
 */
import { InputError, need, needOne, rootOf } from '../numeric'
import { acrossGap, onHorizontal, onVertical, radiated, SIZE_M } from './films'
import type { Touched } from './touch'

export interface WallMaterial {
  conductivityWMK: number
  emissivity: number
  /** kJ/(m³ K), for how long it takes to warm. */
  capacityKJM3K: number
  touched: Touched
  /** It feeds a fire, and says so wherever it is used. */
  burns: boolean
}
const of = (
  conductivityWMK: number,
  emissivity: number,
  capacityKJM3K: number,
  touched: Touched,
  burns = false,
): WallMaterial => ({ conductivityWMK, emissivity, capacityKJM3K, touched, burns })
/** Materials of walls by their generic names. */
export const WALL_MATERIALS = {
  'acrylic': of(0.19, 0.9, 1700, 'plastic', true),
  'polycarbonate': of(0.2, 0.9, 1440, 'plastic', true),
  'glass': of(1, 0.9, 2100, 'glass'),
  'steel sheet, painted': of(50, 0.9, 3700, 'metal'),
  'aluminium sheet, bare': of(200, 0.1, 2430, 'metal'),
  'aluminium composite panel': of(0.4, 0.8, 2000, 'metal', true),
  'plywood': of(0.13, 0.9, 900, 'wood', true),
  'wood-fibre board': of(0.12, 0.9, 1100, 'wood', true),
  'mineral wool': of(0.04, 0.9, 50, 'plastic'),
  'calcium silicate board': of(0.06, 0.9, 250, 'plastic'),
  'polystyrene foam': of(0.035, 0.9, 35, 'plastic', true),
  'polyurethane foam': of(0.028, 0.9, 45, 'plastic', true),
  'cardboard': of(0.06, 0.9, 250, 'wood', true),
  'felt': of(0.045, 0.9, 100, 'plastic', true),
  'air gap': of(0.026, 0.9, 1.2, 'plastic'),
} as const satisfies Record<string, WallMaterial>
export type WallMaterialName = keyof typeof WALL_MATERIALS
/** Their names, as a list offers them. */
export const WALL_MATERIAL_NAMES = Object.keys(WALL_MATERIALS) as WallMaterialName[]
/** Whether a word is one of them. */
export const isWallMaterial = (name: string): name is WallMaterialName => Object.hasOwn(WALL_MATERIALS, name)

/** How a wall stands: a side, over the chamber, under it. */
export const WALL_FACES = ['side', 'top', 'bottom'] as const
export type WallFace = (typeof WALL_FACES)[number]

export interface Layer {
  material: WallMaterialName
  mm: number
}
export interface Wall {
  name: string
  face: WallFace
  areaM2: number
  /** From the inside out. */
  layers: readonly Layer[]
}
/** Thickness of a layer, mm; a wall of no thickness is none. */
export const LAYER_MM = [0.1, 500] as const
/** Area of a wall, m². */
export const WALL_M2 = [0.001, 20] as const
/** Walls of a plan, and layers of a wall. */
export const MOST_WALLS = 20
/** Layers of one wall. */
export const MOST_LAYERS = 8

/** Refuses walls of no thickness, without an area, or that end in air. Throws InputError at `walls.0.layers.1.mm`. */
export function checkWall(w: Wall, field: string): void {
  needOne(`${field}.face`, w.face, WALL_FACES)
  need(`${field}.areaM2`, w.areaM2, ...WALL_M2, 'm²')
  if (w.layers.length === 0 || w.layers.length > MOST_LAYERS)
    throw new InputError(`${field}.layers`, w.layers.length, `1 to ${MOST_LAYERS} layers`)
  w.layers.forEach((l, i) => {
    if (!isWallMaterial(l.material))
      throw new InputError(`${field}.layers.${i}.material`, l.material, WALL_MATERIAL_NAMES.join(', '))
    need(`${field}.layers.${i}.mm`, l.mm, ...LAYER_MM, 'mm')
  })
  const ends = [w.layers[0]!, w.layers[w.layers.length - 1]!]
  if (ends.some(l => l.material === 'air gap'))
    throw new InputError(`${field}.layers`, 'an air gap', 'air between two layers of something else')
}

/** Resistance of the solid layers, m² K/W. */
export function solidResistance(layers: readonly Layer[]): number {
  return layers.reduce((a, l) => {
    need('mm', l.mm, ...LAYER_MM, 'mm')
    return l.material === 'air gap' ? a : a + l.mm / 1000 / WALL_MATERIALS[l.material].conductivityWMK
  }, 0)
}

/**
 * A wall with a layer more, put into its outermost one: both of its faces stay what they are. (Wool over bare aluminium
 * would make that radiate more.)
 */
export function withMore(layers: readonly Layer[], more: Layer): Layer[] {
  need('mm', more.mm, ...LAYER_MM, 'mm')
  const last = layers[layers.length - 1]!
  const half = { ...last, mm: Math.max(LAYER_MM[0], last.mm / 2) }
  return [...layers.slice(0, -1), half, more, half]
}

/** What goes through a wall, and how warm it is inside and outside. */
export interface WallHeat {
  w: number
  insideC: number
  outsideC: number
}
/** The film of stirred air inside adds so much, W/(m² K): common practice, no source. */
const STIRRED_H = 10
/** Within so many °C both sides of a wall agree. */
const AGREES_C = 1e-6
/** As wide apart as faces of a gap may be, °C. */
const WIDEST_C = 400

/**
 * Heat from air at `insideC` through a wall to a room at `roomC`; `stirred` by a fan inside. By the outside's
 * temperature: what it gives off to the room is what reaches it through films and layers. The chamber is no colder than
 * its room, and at most 400 °C.
 *
 * @example
 * const wall = { name: 'door', face: 'side', areaM2: 0.5, layers: [{ material: 'acrylic', mm: 5 }] }
 * wallHeat(wall, 0.7, 60, 23, false).w // 82 (W)
 */
export function wallHeat(wall: Wall, heightM: number, insideC: number, roomC: number, stirred: boolean): WallHeat {
  checkWall(wall, 'wall')
  need('roomC', roomC, -20, 60, '°C')
  need('insideC', insideC, roomC, 400, '°C')
  need('heightM', heightM, ...SIZE_M, 'm')
  return throughWall(wall, heightM, insideC, roomC, stirred)
}

/** The same of a wall that is checked. */
export function throughWall(wall: Wall, heightM: number, insideC: number, roomC: number, stirred: boolean): WallHeat {
  const { face, areaM2, layers } = wall
  if (insideC - roomC < AGREES_C) return { w: 0, insideC: roomC, outsideC: roomC }
  const perimeterM = 4 * Math.sqrt(areaM2)
  const first = WALL_MATERIALS[layers[0]!.material]
  const last = WALL_MATERIALS[layers[layers.length - 1]!.material]
  // a lid meets the air inside from above, the room from below; a floor the other way round
  const film = (surfaceC: number, airC: number, outside: boolean) => {
    if (face === 'side') return onVertical(heightM, surfaceC, airC).h
    return onHorizontal(areaM2, perimeterM, surfaceC, airC, (face === 'top') === outside ? 'up' : 'down').h
  }
  const given = (surfaceC: number) =>
    (film(surfaceC, roomC, true) + radiated(last.emissivity, surfaceC, roomC)) * (surfaceC - roomC)
  const taken = (surfaceC: number) =>
    (film(surfaceC, insideC, false) + radiated(first.emissivity, surfaceC, insideC) + (stirred ? STIRRED_H : 0)) *
    (insideC - surfaceC)
  const solid = solidResistance(layers)
  const meanC = (insideC + roomC) / 2
  const emissivityOf = (i: number) => WALL_MATERIALS[layers[i]!.material].emissivity
  const gaps = layers.flatMap((l, i) =>
    l.material === 'air gap'
      ? [acrossGap(l.mm / 1000, heightM, meanC, [emissivityOf(i - 1), emissivityOf(i + 1)])]
      : [],
  )
  const acrossGaps = (flux: number) =>
    gaps.reduce((a, film) => a + rootOf(d => film(d) * d - flux, 0, WIDEST_C, AGREES_C), 0)
  const innerOf = (outsideC: number) => {
    const flux = given(outsideC)
    return outsideC + flux * solid + acrossGaps(flux)
  }
  // more than 0 where the outside gives off more than the inside can bring
  const over = (outsideC: number) => {
    const innerC = innerOf(outsideC)
    return innerC >= insideC ? given(outsideC) + innerC - insideC : given(outsideC) - taken(innerC)
  }
  const outsideC = rootOf(over, roomC, insideC, AGREES_C)
  return { w: given(outsideC) * areaM2, insideC: innerOf(outsideC), outsideC }
}
