/** What the form of a plan holds while it is typed, and what is made of it. */
import { WALL_M2, type ChamberSize, type Layer, type WallFace, type WallMaterialName } from '#core/chamber'
import type { PlanLine } from '#shared/answers/chambers'
import type { planSpec, PlanSpec } from '#shared/entries/plans'
import { sent } from '~/words/numbers'

export interface TypedLayer {
  material: WallMaterialName
  mm: number | null
}
export interface TypedWall {
  name: string
  face: WallFace
  areaM2: number | null
  layers: TypedLayer[]
  added: TypedLayer[]
}
/** What is typed as a number. */
export type PlanNumber =
  | keyof ChamberSize
  | 'roomC'
  | 'bedC'
  | 'bedM2'
  | 'bedW'
  | 'nozzleW'
  | 'insideKg'
  | 'gapMm2'
  | 'gapThenMm2'
  | 'ventLMin'
  | 'heaterW'
  | 'heaterSetC'
  | 'cutOutC'
  | 'targetC'
export interface PlanForm extends Record<PlanNumber, number | null> {
  name: string
  walls: TypedWall[]
  under: PlanSpec['bed']['under']
  stirred: boolean
  heaterNow: boolean
  note: string
  occurredAt: string
}

const SIDES: [name: string, face: WallFace, area: (s: ChamberSize) => number][] = [
  ['front', 'side', s => s.widthMm * s.heightMm],
  ['back', 'side', s => s.widthMm * s.heightMm],
  ['left', 'side', s => s.depthMm * s.heightMm],
  ['right', 'side', s => s.depthMm * s.heightMm],
  ['top', 'top', s => s.widthMm * s.depthMm],
  ['floor', 'bottom', s => s.widthMm * s.depthMm],
]
const PANEL: Layer = { material: 'acrylic', mm: 4 }
const FLOOR: Layer = { material: 'steel sheet, painted', mm: 1.5 }
const roundM2 = (mm2: number) => Math.max(WALL_M2[0], Math.round(mm2 / 1e4) / 100)

/** A box of the size as such boxes are: panels on a metal floor. Start values, to be put right. */
export function wallsOf(size: ChamberSize): TypedWall[] {
  return SIDES.map(([name, face, area]) => ({
    name,
    face,
    areaM2: roundM2(area(size)),
    layers: [{ ...(face === 'bottom' ? FLOOR : PANEL) }],
    added: [],
  }))
}

const USUAL_SIZE: ChamberSize = { widthMm: 450, depthMm: 450, heightMm: 500 }
export function newForm(size: ChamberSize | null, roomC: number, heated: boolean): PlanForm {
  const of = size ?? USUAL_SIZE
  return {
    name: 'Lined',
    ...of,
    walls: wallsOf(of),
    roomC,
    bedC: 100,
    bedM2: 0.09,
    bedW: 350,
    under: 'insulated',
    nozzleW: 15,
    insideKg: 8,
    stirred: false,
    gapMm2: 2000,
    gapThenMm2: 2000,
    ventLMin: 0,
    heaterW: heated ? 500 : 0,
    heaterSetC: null,
    cutOutC: null,
    heaterNow: heated,
    targetC: null,
    note: '',
    occurredAt: new Date().toISOString(),
  }
}
export function formOf({ spec: s, name, note }: PlanLine): PlanForm {
  const { size, bed, ...same } = s
  return {
    ...same,
    ...size,
    bedC: bed.setC,
    bedM2: bed.areaM2,
    bedW: bed.powerW,
    under: bed.under,
    name,
    note,
    targetC: null,
    occurredAt: new Date().toISOString(),
  }
}

export function bodyOf(v: PlanForm): Record<string, unknown> {
  const layers = (of: readonly TypedLayer[]) => of.map(l => ({ material: l.material, mm: sent(l.mm) }))
  return {
    name: v.name,
    size: { widthMm: sent(v.widthMm), depthMm: sent(v.depthMm), heightMm: sent(v.heightMm) },
    walls: v.walls.map(w => ({
      name: w.name,
      face: w.face,
      areaM2: sent(w.areaM2),
      layers: layers(w.layers),
      added: layers(w.added),
    })),
    roomC: sent(v.roomC),
    bed: { setC: sent(v.bedC), areaM2: sent(v.bedM2), powerW: sent(v.bedW), under: v.under },
    nozzleW: sent(v.nozzleW),
    stirred: v.stirred,
    insideKg: sent(v.insideKg),
    gapMm2: sent(v.gapMm2),
    gapThenMm2: sent(v.gapThenMm2),
    ventLMin: sent(v.ventLMin),
    heaterW: sent(v.heaterW),
    heaterSetC: sent(v.heaterSetC),
    cutOutC: sent(v.cutOutC),
    heaterNow: v.heaterNow,
    note: v.note,
    occurredAt: v.occurredAt,
  }
}
/** The plan as it stands, by the same rules as the server's; and what of it is not right yet, by its field. */
export function readForm(
  v: PlanForm,
  schema: typeof planSpec,
): { spec: PlanSpec | null; errors: Record<string, string> } {
  const read = schema.safeParse(bodyOf(v))
  if (read.success) return { spec: read.data, errors: {} }
  return {
    spec: null,
    errors: Object.fromEntries(read.error.issues.map(i => [i.path.join('.'), i.message])),
  }
}
