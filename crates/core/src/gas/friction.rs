//! What an engine loses to rubbing and to what it drives, as mean effective pressure.
//!
//! A spark engine's by its parts [Patton, Nitschke and Heywood, SAE 890836; constants as revised by Sandoval and Heywood,
//! SAE 2003-01-0725; from memory]; a diesel's by Chen and Flynn's form.

/// What rubs in an engine.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Friction {
    /// A spark engine's parts.
    Parts(Rubbing),
    /// A diesel's, of peak pressure and piston speed alone.
    ByPressure,
}

/// The sizes of what rubs, SI.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Rubbing {
    /// Cylinder bore.
    pub bore: f64,
    /// Stroke.
    pub stroke: f64,
    /// Static compression ratio.
    pub compression: f64,
    /// Cylinders of the engine.
    pub cylinders: f64,
    /// Main bearings: how many, diameter, length.
    pub mains: (f64, f64, f64),
    /// Rod bearings: diameter, length.
    pub rods: (f64, f64),
    /// Valves of the engine.
    pub valves: f64,
    /// Mean full lift of the valves.
    pub valve_lift: f64,
    /// Open spring load over [`USUAL_OPEN_LOAD`]; 1 where no spring is known.
    pub spring: f64,
    /// Whether rollers run on the lobes.
    pub roller: bool,
    /// Share of all accessories that is driven: 1 for pumps and alternator, .5 for the oil pump alone.
    pub accessories: f64,
}

/// Load of one open valve's springs at which the published terms of contact under load are taken as they are, N (300 lbf;
/// assumed: the engines behind them had springs of their lifts).
pub const USUAL_OPEN_LOAD: f64 = 1334.0;
/// How far a spring may move those terms.
const SPRING_MOVES: (f64, f64) = (0.5, 3.0);
/// Peak pressure up to which the gas term holds, Pa, and what each pascal beyond it adds (Chen and Flynn's share).
const PLAIN_PEAK: f64 = 70e5;
const BY_PEAK: f64 = 0.005;

/// Mean effective pressures, Pa.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub struct Parts {
    /// Main bearings, their seals and the oil they throw.
    pub crank: f64,
    /// Pistons, rings and rod bearings without gas pressure.
    pub reciprocating: f64,
    /// What gas pressure adds to rings and skirts.
    pub gas: f64,
    /// Cam bearings, lobes, lifters, rockers and valves.
    pub train: f64,
    /// Pumps and alternator.
    pub accessories: f64,
    /// All of a diesel, which is not told apart.
    pub whole: f64,
}

impl Parts {
    /// Their sum.
    pub fn sum(&self) -> f64 {
        self.crank + self.reciprocating + self.gas + self.train + self.accessories + self.whole
    }

    /// Each times `factor`.
    pub fn scaled(self, factor: f64) -> Self {
        let Self { crank, reciprocating, gas, train, accessories, whole } = self;
        let [crank, reciprocating, gas, train, accessories, whole] =
            [crank, reciprocating, gas, train, accessories, whole].map(|part| factor * part);
        Self { crank, reciprocating, gas, train, accessories, whole }
    }
}

impl Friction {
    /// At a crank speed, with a peak pressure (Pa) and a mean piston speed (m/s).
    pub fn at(&self, rpm: f64, peak: f64, piston_speed: f64) -> Parts {
        match self {
            Self::Parts(rubbing) => rubbing.at(rpm, peak, piston_speed),
            Self::ByPressure => Parts { whole: by_pressure(peak, piston_speed), ..Parts::default() },
        }
    }
}

impl Rubbing {
    /// The published sums are of millimetres and kilopascals.
    fn at(&self, rpm: f64, peak: f64, piston_speed: f64) -> Parts {
        let (bore, stroke) = (1e3 * self.bore, 1e3 * self.stroke);
        let (count, main, main_length) = (self.mains.0, 1e3 * self.mains.1, 1e3 * self.mains.2);
        let (rod, rod_length) = (1e3 * self.rods.0, 1e3 * self.rods.1);
        let swept = bore * bore * stroke;
        // Contact that oil carries the better the faster it turns.
        let mixed = 1.0 + 1000.0 / rpm;
        let crank = 1.22e5 * main / (swept * self.cylinders)
            + 3.03e-4 * rpm * main.powi(3) * main_length * count / (swept * self.cylinders)
            + 1.35e-10 * main * main * rpm * rpm * count / self.cylinders;
        let reciprocating = 294.0 * piston_speed / bore
            + 4.06e4 * mixed / (bore * bore)
            + 3.03e-4 * rpm * rod.powi(3) * rod_length / swept;
        let gas = 6.89 * (0.088 * self.compression + 0.182 * self.compression.powf(1.33 - 0.0238 * piston_speed));
        let beyond = 1e-3 * BY_PEAK * (peak - PLAIN_PEAK).max(0.0);
        let accessories = self.accessories * (6.23 + 5.22e-3 * rpm - 1.79e-7 * rpm * rpm);
        let parts =
            Parts { crank, reciprocating, gas: gas + beyond, train: self.train(rpm, mixed), accessories, whole: 0.0 };
        parts.scaled(1e3)
    }

    fn train(&self, rpm: f64, mixed: f64) -> f64 {
        let (bore, stroke) = (1e3 * self.bore, 1e3 * self.stroke);
        let (lift, each) = (1e3 * self.valve_lift, self.valves / self.cylinders);
        let loaded = self.spring.clamp(SPRING_MOVES.0, SPRING_MOVES.1);
        let bearings = 244.0 * rpm * self.mains.0 / (bore * bore * stroke * self.cylinders) + 4.12;
        let followers = if self.roller { 0.0151 * rpm * each / stroke } else { loaded * 400.0 * mixed * each / stroke };
        let oil = 0.5 * lift.powf(1.5) * rpm.sqrt() * each / (bore * stroke);
        bearings + followers + oil + loaded * 32.1 * mixed * lift * each / stroke
    }
}

/// Friction mean effective pressure of a diesel, Pa, of a peak pressure (Pa) and mean piston speed (m/s):
/// `0.4 + 0.005 pmax + 0.09 Sp + 0.0009 Sp^2` bar [Chen and Flynn 1965, form; constants common practice, no source].
fn by_pressure(peak: f64, piston_speed: f64) -> f64 {
    1e5 * (0.4 + 0.005 * peak * 1e-5 + 0.09 * piston_speed + 0.0009 * piston_speed * piston_speed)
}

#[cfg(test)]
mod tests {
    use super::*;

    const INCH: f64 = 0.0254;

    fn race_v8() -> Rubbing {
        let bore = 4.030 * INCH;
        Rubbing {
            bore,
            stroke: 4.0 * INCH,
            compression: 11.3,
            cylinders: 8.0,
            mains: (5.0, 0.64 * bore, 0.23 * bore),
            rods: (0.53 * bore, 0.22 * bore),
            valves: 16.0,
            valve_lift: 0.64 * INCH,
            spring: 1.0,
            roller: true,
            accessories: 0.5,
        }
    }

    #[test]
    fn a_race_v8_rubs_as_the_published_sums_say() {
        // Worked apart from this code: 24.5 + 75.4 + 15.5 + 19.4 + 16.4 = 151 kPa at 6600 rpm.
        let parts = race_v8().at(6600.0, 60e5, 2.0 * 4.0 * INCH * 6600.0 / 60.0);
        let found = [parts.crank, parts.reciprocating, parts.gas, parts.train, parts.accessories];
        for (found, wanted) in found.iter().zip([24.5, 75.4, 15.5, 19.4, 16.4]) {
            assert!((found * 1e-3 - wanted).abs() < 0.1, "{parts:?}");
        }
        // Chen and Flynn's form said more than twice that.
        assert!(by_pressure(60e5, 22.35) > 2.0 * parts.sum());
    }

    #[test]
    fn a_motored_engine_of_the_text_book_rubs_between_its_bounds() {
        // Total motored friction of four-stroke spark engines: .7 to 1.2 bar at 1,500 rpm, 1.3 to 2.3 at 4,500, pumping
        // of an open throttle off it already [Heywood, fig. 13-7 and 13-14, between 85 and 92 mm of bore; from memory].
        let bore = 0.087;
        let small = Rubbing {
            bore,
            stroke: 0.083,
            compression: 9.0,
            cylinders: 4.0,
            mains: (5.0, 0.64 * bore, 0.23 * bore),
            rods: (0.53 * bore, 0.22 * bore),
            valves: 8.0,
            valve_lift: 9.5e-3,
            spring: 1.0,
            roller: false,
            accessories: 1.0,
        };
        for (rpm, low, high) in [(1500.0, 0.7e5, 1.2e5), (4500.0, 1.3e5, 2.3e5)] {
            let sum = small.at(rpm, 50e5, 2.0 * 0.083 * rpm / 60.0).sum();
            assert!((low..high).contains(&sum), "{rpm}: {sum}");
        }
    }

    #[test]
    fn each_part_follows_what_it_is_made_of() {
        let base = race_v8();
        let at = |rubbing: Rubbing| rubbing.at(4000.0, 60e5, 13.5);
        let (usual, flat) = (at(base), at(Rubbing { roller: false, ..base }));
        assert!(flat.train > usual.train + 5e3, "rollers rub less: {flat:?}");
        assert!(at(Rubbing { spring: 2.0, ..base }).train > usual.train);
        assert!(at(Rubbing { accessories: 0.0, ..base }).accessories.abs() < 1e-9);
        assert!(at(Rubbing { mains: (5.0, 0.08, 0.024), ..base }).crank > usual.crank);
        assert!((base.at(4000.0, 90e5, 13.5).sum() - usual.sum() - 0.005 * 20e5).abs() < 1.0);
    }
}
