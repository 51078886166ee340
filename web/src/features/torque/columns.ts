import { numberIn, plain as plainly } from '../../model/figures'
import type { Analysis, CurveReport, UnitSystem } from '../../api/client'

type Scales = Analysis['scales']

interface Column {
  readonly label: string
  readonly help: string
  /** Values in the report's own unit; `undefined` where the engine has none. */
  readonly values: (
    curve: CurveReport,
    system: UnitSystem,
  ) => readonly (number | null)[] | null | undefined
  readonly show: (value: number, scales: Scales, system: UnitSystem) => string
  readonly unit: (scales: Scales, system: UnitSystem) => string
}

type Reading = Pick<Column, 'show' | 'unit'>

const share: Reading = { show: (value) => (100 * value).toFixed(1), unit: () => '%' }
const plain = (decimals: number): Reading => ({
  show: (value) => plainly(value, decimals),
  unit: () => '',
})
const pressureScale = (scales: Scales, system: UnitSystem) =>
  system === 'inch' ? scales.pressure_inch : scales.pressure_metric
const pressure: Reading = {
  show: (kpa, scales, system) => {
    const scale = pressureScale(scales, system)
    return numberIn(kpa * 1e3, scale)
  },
  unit: (scales, system) => pressureScale(scales, system).unit,
}
/** A quantity that both systems scale from its SI value. */
const scaled = (name: 'torque' | 'power', si: number): Reading => {
  const of = (scales: Scales, system: UnitSystem) => scales[`${name}_${system}`]
  return {
    show: (value, scales, system) => numberIn(value * si, of(scales, system)),
    unit: (scales, system) => of(scales, system).unit,
  }
}
const temperatureScale = (scales: Scales, system: UnitSystem) =>
  system === 'inch' ? scales.temperature_inch : scales.temperature_metric
const temperature: Reading = {
  // The scale counts from absolute zero, the report in Celsius.
  show: (celsius, scales, system) => {
    const kelvin = celsius + scales.temperature_metric.offset
    return numberIn(kelvin, temperatureScale(scales, system))
  },
  unit: (scales, system) => temperatureScale(scales, system).unit,
}

/** What is told of every computed speed, the first ones of every engine. */
export const COLUMNS: readonly Column[] = [
  { label: 'Torque', help: 'At the crank.', values: (c) => c.torque_nm, ...scaled('torque', 1) },
  { label: 'Power', help: 'At the crank.', values: (c) => c.power_kw, ...scaled('power', 1e3) },
  {
    label: 'Volumetric efficiency',
    help: 'Air taken in over the swept volume of outside air.',
    values: (c) => c.volumetric_efficiency,
    ...share,
  },
  {
    label: 'Manifold',
    help: 'Pressure in the plenum, absolute.',
    values: (c) => c.manifold_kpa,
    ...pressure,
  },
  { label: 'Boost', help: 'As a gauge shows it.', values: (c) => c.boost_kpa, ...pressure },
  {
    label: 'Drive',
    help: 'Before the turbine, as a gauge shows it.',
    values: (c) => c.drive_kpa,
    ...pressure,
  },
  {
    label: 'Peak cylinder',
    help: 'Highest cylinder pressure, absolute.',
    values: (c) => c.peak_cylinder_pressure_kpa,
    ...pressure,
  },
  {
    label: 'As exhaust opens',
    help: 'Cylinder pressure when the exhaust valve opens, absolute.',
    values: (c) => c.exhaust_opening_kpa,
    ...pressure,
  },
  {
    label: 'Exhaust gas',
    help: 'Mean temperature of what leaves through the valve.',
    values: (c) => c.exhaust_temperature_c,
    ...temperature,
  },
  {
    label: 'Fuel used',
    help: 'For brake work.',
    values: (c, system) =>
      system === 'inch' ? c.consumption_lb_per_hp_h : c.consumption_g_per_kwh,
    show: (value, _, system) => plainly(value, system === 'inch' ? 3 : 0),
    unit: (_, system) => (system === 'inch' ? 'lb/hp h' : 'g/kWh'),
  },
  {
    label: 'Air',
    help: 'Of the whole engine.',
    values: (c, system) => (system === 'inch' ? c.air_lb_per_min : c.air_kg_per_h),
    show: (value, _, system) => plainly(value, system === 'inch' ? 1 : 0),
    unit: (_, system) => (system === 'inch' ? 'lb/min' : 'kg/h'),
  },
  {
    label: 'Air drawn',
    help: 'Of the whole engine, as outside air.',
    values: (c) => c.air_cfm,
    show: (value) => plainly(value, 0),
    unit: () => 'cfm',
  },
  {
    label: 'Piston speed',
    help: 'Mean of the stroke.',
    values: (c, system) => (system === 'inch' ? c.piston_speed_ft_per_min : c.piston_speed_m_per_s),
    show: (value, _, system) => plainly(value, system === 'inch' ? 0 : 1),
    unit: (_, system) => (system === 'inch' ? 'ft/min' : 'm/s'),
  },
  { label: 'Air-fuel', help: 'By mass.', values: (c) => c.air_fuel, ...plain(1) },
  {
    label: 'Smoke margin',
    help: 'Air-fuel ratio above the smoke limit.',
    values: (c) => c.smoke_margin,
    ...share,
  },
  {
    label: 'Octane needed',
    help: 'RON at which the end gas would just light itself with the spark at its best.',
    values: (c) => c.octane_needed,
    ...plain(0),
  },
  {
    label: 'Residual',
    help: 'Burned share at intake closing.',
    values: (c) => c.residual_fraction,
    ...share,
  },
  {
    label: 'Short-circuited',
    help: 'Fresh charge lost through the exhaust valve, of the air taken in.',
    values: (c) => c.short_circuited,
    ...share,
  },
  {
    label: 'Pushed back',
    help: 'Gas pushed back through the intake valve, of the air taken in.',
    values: (c) => c.pushed_back,
    ...share,
  },
  {
    label: 'Drawn back',
    help: 'Gas drawn in through the exhaust valve, of the air taken in.',
    values: (c) => c.drawn_back,
    ...share,
  },
  {
    label: 'Pumping',
    help: 'Mean effective pressure of exhaust and intake strokes.',
    values: (c) => c.pumping_kpa,
    ...pressure,
  },
  {
    label: 'Friction',
    help: 'Mean effective pressure.',
    values: (c) => c.friction_kpa,
    ...pressure,
  },
  {
    label: 'Between cylinders',
    help: 'Work of the best less that of the worst, over their mean.',
    values: (c) => c.cylinder_spread,
    ...share,
  },
  {
    label: 'Cycles',
    help: 'Computed from cold until two agree.',
    values: (c) => c.cycles,
    ...plain(0),
  },
]

/** One value as it is read; nothing where there is none. Pure. */
export function cellOf(
  column: Reading,
  value: number | null,
  scales: Scales,
  system: UnitSystem,
): string {
  return value === null ? '' : column.show(value, scales, system)
}
