//! The air a pull is stated in, and what brings its torque to the crank in the plan's air.

use super::air::outside;
use crate::given::{Given, PullPart};
use crate::pulls::air::{Burns, OutsideAir, Standard};
use crate::words::{Combustion, DynoKind, PullAir};

/// What corrections of an engine's pulls rest on.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Stated {
    /// The plan's air.
    pub plan: OutsideAir,
    /// How it burns.
    pub burns: Burns,
}

impl Stated {
    /// What a candidate's document says of it. Of a diesel the most fuel and boost of its tables count: the correction grows with the
    /// one and falls with the other, and pulls are run on full load.
    pub fn of(given: &Given) -> Self {
        let plan = outside(&given.ambient);
        let engine = &given.engine;
        let litres = engine
            .bore
            .zip(engine.stroke)
            .map(|(bore, stroke)| 0.25e3 * std::f64::consts::PI * bore.si().powi(2) * stroke.si());
        let most_fuel =
            engine.fuelling.iter().flat_map(|own| own.0.iter()).map(|(_, fuel)| fuel.si() * 1e6).reduce(f64::max);
        let boosts = given.target.boost.iter().flat_map(|rows| rows.iter());
        let gauge = boosts.map(|row| row.manifold.si()).fold(0.0, f64::max);
        let burns = match engine.combustion {
            Some(Combustion::Diesel) => Burns::Compression {
                fuel: most_fuel.zip(litres).map_or(0.0, |(fuel, litres)| fuel / litres),
                boost: 1.0 + gauge / plan.pressure,
            },
            Some(Combustion::Spark) | None => Burns::Spark,
        };
        Self { plan, burns }
    }

    /// What torque of a pull is divided by to be torque at the crank in the plan's air.
    pub fn over_plan(&self, pull: &PullPart) -> f64 {
        let day = day_of(pull);
        let in_standard = pull.air.and_then(standard_of);
        let factor = match (in_standard, day) {
            (Some(standard), _) => self.factor(standard, &self.plan),
            (None, Some(day)) if pull.air != Some(PullAir::AsPlanned) => {
                self.factor(Standard::J1349, &self.plan) / self.factor(Standard::J1349, &day)
            }
            (None, _) => 1.0,
        };
        factor / self.at_crank(pull)
    }

    /// What torque of a pull is multiplied by to be at the crank, whatever its air.
    pub fn at_crank(&self, pull: &PullPart) -> f64 {
        match pull.dyno {
            Some(DynoKind::Chassis) => 1.0 / (1.0 - pull.loss.unwrap_or(0.0)),
            Some(DynoKind::Engine) | None => 1.0,
        }
    }

    /// What torque of a pull is multiplied by to be at the crank in the air of a standard, or in the plan's.
    pub fn into_air(&self, pull: &PullPart, air: Option<Standard>) -> f64 {
        match air {
            // A pull that is in the standard wanted already is not taken through the plan's air and back.
            Some(wanted) if pull.air.and_then(standard_of) == Some(wanted) => self.at_crank(pull),
            Some(wanted) => self.factor(wanted, &self.plan) / self.over_plan(pull),
            None => 1.0 / self.over_plan(pull),
        }
    }

    fn factor(&self, standard: Standard, air: &OutsideAir) -> f64 {
        standard.factor(air, self.burns)
    }
}

/// The standard whose air a pull is stated in; `None` for an air of its own.
pub const fn standard_of(air: PullAir) -> Option<Standard> {
    match air {
        PullAir::SaeJ1349 => Some(Standard::J1349),
        PullAir::SaeJ607 => Some(Standard::J607),
        PullAir::Iso1585 => Some(Standard::Iso1585),
        PullAir::AsMeasured | PullAir::AsPlanned => None,
    }
}

/// The air of its day, where pressure and temperature stand beside a pull.
fn day_of(pull: &PullPart) -> Option<OutsideAir> {
    let (pressure, temperature) = (pull.pressure?.si(), pull.temperature?.si());
    Some(OutsideAir { pressure, temperature, humidity: pull.humidity.unwrap_or(0.0) })
}
