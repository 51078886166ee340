//! Rules about the gas, held against what breathing computed instead of a closed-form estimate.

use super::exhaust_opening::EXHAUST_OPENING;
use super::rule::{Finding, Measure, Rule, common, evaluate};
use super::springs::SEAT_RESERVE;
use crate::candidate::{Computed, Inputs, Stages};
use crate::document::Side;
use crate::quantity::Pressure;
use crate::report::{LimitReport, Place, Sense};

/// Octane numbers that a later spark makes up for before the engine gives up much (common practice, no source).
const LATER_SPARK: f64 = 10.0;
/// Room below a pressure ceiling under which it is tight, Pa (common practice, no source).
const CEILING_TIGHT: f64 = 5e5;

/// Room above the vacuum wanted under which it is tight, Pa: 1 inHg (common practice, no source).
const VACUUM_TIGHT: f64 = 3386.0;

/// The fuel against the knock integral.
pub static OCTANE: Rule = Rule {
    id: "octane",
    title: "Octane, the spark a little late",
    place: Place::Torque,
    sense: Sense::AtMost,
    measure: Measure::Number,
    sided: false,
    formula: "RON at which Livengood and Wu's integral with Douaud and Eyzat's delay just reaches one, greatest over the speeds, with the spark at its best; ten numbers more than the fuel has are made up for by less spark",
    school: common,
    find: |inputs, _, _| {
        let need = inputs.computed.as_ref()?.octane_needed?;
        let have = inputs.engine.number("octane_ron")?;
        Some(Ok(Finding::at_most(have + LATER_SPARK, LATER_SPARK, need)))
    },
    inputs: |inputs, _| vec![inputs.engine.input("octane_ron"), inputs.engine.input("chamber_volume")],
    advice: false,
    levers: &[],
};

/// Cylinder pressure against what the engine is trusted with.
pub static PEAK_PRESSURE: Rule = Rule {
    id: "peak_pressure",
    title: "Peak cylinder pressure",
    place: Place::Torque,
    sense: Sense::AtMost,
    measure: Measure::Pressure,
    sided: false,
    formula: "highest cylinder pressure over the speeds, absolute",
    school: common,
    find: |inputs, _, _| {
        let have = inputs.computed.as_ref()?.peak_pressure;
        let ceiling: Pressure = inputs.engine.quantity("pressure_ceiling")?;
        Some(Ok(Finding::at_most(ceiling.si(), CEILING_TIGHT, have)))
    },
    inputs: |inputs, _| vec![inputs.engine.input("pressure_ceiling")],
    advice: false,
    levers: &[],
};

/// The vacuum an idling engine leaves against the one wanted.
pub static IDLE_VACUUM: Rule = Rule {
    id: "idle_vacuum",
    title: "Vacuum at idle",
    place: Place::Torque,
    sense: Sense::AtLeast,
    measure: Measure::Vacuum,
    sided: false,
    formula: "outside pressure less the manifold pressure at which the engine just turns itself and .1 bar of load at idle speed, the spark at its best",
    school: common,
    find: |inputs, _, _| {
        let have = inputs.computed.as_ref()?.idle_vacuum?;
        let need: Pressure = inputs.target.quantity("idle_vacuum")?;
        Some(Ok(Finding::at_least(need.si(), VACUUM_TIGHT, have)))
    },
    inputs: |inputs, _| vec![inputs.target.input("idle_vacuum"), inputs.target.input("idle_at")],
    advice: false,
    levers: &[],
};

/// Every rule that asks for the gas, with what was computed.
pub fn computed_limits(mut inputs: Inputs<'_>, computed: Computed, stages: &Stages) -> Vec<LimitReport> {
    if computed.boost.is_some() {
        inputs.boost = computed.boost;
    }
    inputs.computed = Some(computed);
    let lines = [
        evaluate(&OCTANE, None, &inputs, stages),
        evaluate(&PEAK_PRESSURE, None, &inputs, stages),
        evaluate(&IDLE_VACUUM, None, &inputs, stages),
        evaluate(&EXHAUST_OPENING, None, &inputs, stages),
        evaluate(&SEAT_RESERVE, Some(Side::Intake), &inputs, stages),
        evaluate(&SEAT_RESERVE, Some(Side::Exhaust), &inputs, stages),
    ];
    lines.into_iter().flatten().collect()
}
