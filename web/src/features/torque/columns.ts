import type { Analysis, CurveReport, UnitSystem } from '../../api/client'

type Scales = Analysis['scales']

interface Column {
  readonly label: string
  readonly help: string
  /** Values in the report's own unit; `undefined` where the engine has none. */
  readonly values: (curve: CurveReport) => readonly number[] | null | undefined
  readonly show: (value: number, scales: Scales, system: UnitSystem) => string
}

const share = (value: number) => `${(100 * value).toFixed(1)} %`
const plain = (decimals: number) => (value: number) => value.toFixed(decimals)
const pressure = (kpa: number, scales: Scales, system: UnitSystem) => {
  const scale = system === 'inch' ? scales.pressure_inch : scales.pressure_metric
  return `${((kpa * 1e3) / scale.factor).toFixed(scale.decimals)} ${scale.unit}`
}
const temperature = (celsius: number, scales: Scales, system: UnitSystem) => {
  // The scale counts from absolute zero, the report in Celsius.
  const [scale, kelvin] = system === 'inch' ? [scales.temperature_inch, celsius + scales.temperature_metric.offset] : [scales.temperature_metric, celsius + scales.temperature_metric.offset]
  return `${((kelvin - scale.offset) / scale.factor).toFixed(0)} ${scale.unit}`
}

/** What is told of every computed speed, the first ones of every engine. */
export const COLUMNS: readonly Column[] = [
  { label: 'Volumetric efficiency', help: 'Air taken in over the swept volume of outside air.', values: (c) => c.volumetric_efficiency, show: share },
  { label: 'Manifold', help: 'Pressure in the plenum, absolute.', values: (c) => c.manifold_kpa, show: pressure },
  { label: 'Boost', help: 'As a gauge shows it.', values: (c) => c.boost_kpa, show: pressure },
  { label: 'Drive', help: 'Before the turbine, as a gauge shows it.', values: (c) => c.drive_kpa, show: pressure },
  { label: 'Peak cylinder', help: 'Highest cylinder pressure, absolute.', values: (c) => c.peak_cylinder_pressure_kpa, show: pressure },
  { label: 'As exhaust opens', help: 'Cylinder pressure when the exhaust valve opens, absolute.', values: (c) => c.exhaust_opening_kpa, show: pressure },
  { label: 'Exhaust gas', help: 'Mean temperature of what leaves through the valve.', values: (c) => c.exhaust_temperature_c, show: temperature },
  { label: 'Air-fuel', help: 'By mass.', values: (c) => c.air_fuel, show: plain(1) },
  { label: 'Smoke margin', help: 'Air-fuel ratio above the smoke limit.', values: (c) => c.smoke_margin, show: share },
  { label: 'Octane needed', help: 'RON at which the end gas would just light itself with the spark at its best.', values: (c) => c.octane_needed, show: plain(0) },
  { label: 'Residual', help: 'Burned share at intake closing.', values: (c) => c.residual_fraction, show: share },
  { label: 'Short-circuited', help: 'Fresh charge lost through the exhaust valve, of the air taken in.', values: (c) => c.short_circuited, show: share },
  { label: 'Pushed back', help: 'Gas pushed back through the intake valve, of the air taken in.', values: (c) => c.pushed_back, show: share },
  { label: 'Drawn back', help: 'Gas drawn in through the exhaust valve, of the air taken in.', values: (c) => c.drawn_back, show: share },
  { label: 'Pumping', help: 'Mean effective pressure of exhaust and intake strokes.', values: (c) => c.pumping_kpa, show: pressure },
  { label: 'Friction', help: 'Mean effective pressure.', values: (c) => c.friction_kpa, show: pressure },
  { label: 'Between cylinders', help: 'Work of the best less that of the worst, over their mean.', values: (c) => c.cylinder_spread, show: share },
  { label: 'Cycles', help: 'Computed from cold until two agree.', values: (c) => c.cycles, show: plain(0) },
]
