import type { DrawingReport, ValveDrawing } from '../../api/client'

/** A round edge seen from above: its centre and half axes across the engine and along the crank, mm. */
export interface Edge {
  readonly x: number
  readonly y: number
  readonly across: number
  readonly along: number
}

/** The edges of one side from above. */
export interface PlanSide {
  readonly valves: readonly Edge[]
  readonly pocket: Edge | undefined
}

const RADIANS = Math.PI / 180

/** A disc of a diameter, tilted across the engine, from above. Pure. */
function disc(x: number, y: number, diameter: number, tiltDeg: number): Edge {
  const half = diameter / 2
  return { x, y, across: half * Math.cos(tiltDeg * RADIANS), along: half }
}

/** One side with its valve so far open; nothing while nobody placed it. Pure. */
export function planSide(valve: ValveDrawing, liftMm: number): PlanSide | undefined {
  const { offset_mm: x, offset_y_mm: y, second_mm: second, tilt_deg: tilt, head_mm: head } = valve
  if (typeof x !== 'number' || typeof y !== 'number') return undefined
  // A stem that leans to the intake's side pushes its head towards the exhaust's as it opens.
  const moved = liftMm * Math.sin(tilt * RADIANS)
  const [otherX, otherY] = second ?? []
  const others =
    otherX === undefined || otherY === undefined ? [] : [disc(otherX + moved, otherY, head, tilt)]
  const { pocket } = valve
  return {
    valves: [disc(x + moved, y, head, tilt), ...others],
    pocket: pocket
      ? disc(pocket.offset_mm, pocket.offset_y_mm, pocket.diameter_mm, pocket.tilt_deg)
      : undefined,
  }
}

/** Both sides, each at its own lift; nothing while a valve is not placed. Pure. */
export function planOf(
  drawing: DrawingReport,
  lifts: Readonly<Record<'intake' | 'exhaust', number>>,
): Readonly<Record<'intake' | 'exhaust', PlanSide>> | undefined {
  const intake = planSide(drawing.intake, lifts.intake)
  const exhaust = planSide(drawing.exhaust, lifts.exhaust)
  return intake && exhaust ? { intake, exhaust } : undefined
}
