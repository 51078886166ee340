//! Pulls compared: which count, at which speeds, what differs, how sure that is. Figures alone; words come after.

use super::pulled::{FIRST, Pulled, pulled};
use crate::build::Build;
use crate::document::Ledger;
use crate::pulls::level::{Figures, at, common, figures};
use crate::pulls::odd::{Odd, odd};
use crate::pulls::{Design, Fitted, OverSpeed, Target, fit, median, over_speed};
use crate::quantity::{Speed, Torque};
use crate::report::FlagKind;
use rayon::prelude::*;

/// Share of tests whose intervals hold the truth.
pub const HELD: f64 = 0.95;
/// A pull that covers less than this share of the usual range is not compared, and torque this far off all others is of another engine.
const COVERS: f64 = 0.6;
const STRANGE: f64 = 0.25;
/// The lot of the band over all speeds: the same pulls give the same band.
const LOT: u64 = 1;

/// What the document says of the test.
pub struct Plan {
    /// Band, rpm.
    pub band: Option<(f64, f64)>,
    /// Identifier of the control, where the plan names one.
    pub control: Option<String>,
    /// N m.
    pub sure_of: f64,
    /// Temperatures of oil and coolant a pull may begin at, K.
    pub windows: [(Option<f64>, Option<f64>); 2],
    /// Spark held, rad.
    pub spark: Option<f64>,
}

impl Plan {
    /// Of a document.
    pub fn of(build: &Build) -> Self {
        let ledger = Ledger::default();
        let shared = build.shared();
        let target = shared.target(&ledger);
        let root = shared.build(&ledger);
        let test = root.child("dyno_test");
        let rpm = |key: &str| target.quantity::<Speed>(key).map(Speed::as_rpm);
        let kelvin = |key: &str| test.quantity::<crate::quantity::Temperature>(key).map(|own| own.si());
        Self {
            band: rpm("band_from").zip(rpm("band_to")),
            control: test.word("control").map(str::to_owned),
            sure_of: test.quantity::<Torque>("sure_of").map_or(3.0 * 1.355_818, Torque::si),
            windows: [(kelvin("oil_from"), kelvin("oil_to")), (kelvin("water_from"), kelvin("water_to"))],
            spark: test.quantity::<crate::quantity::Angle>("spark").map(|own| own.si()),
        }
    }
}

/// Something that keeps a pull from being compared.
pub struct Kept {
    /// Place among all pulls.
    pub pull: usize,
    /// What.
    pub kind: FlagKind,
    /// Place of the pull it is like, or by which share it is off.
    pub by: f64,
}

/// Pulls that are compared, and what they come to.
pub struct Tested {
    /// Places of those that count.
    pub counted: Vec<usize>,
    /// Why others do not.
    pub kept_out: Vec<Kept>,
    /// rpm.
    pub speeds: Vec<f64>,
    /// Places of the speeds that averages are over.
    pub band: std::ops::Range<usize>,
    /// Combinations by identifier, the baseline first.
    pub combinations: Vec<String>,
    /// Which, when.
    pub design: Design,
    /// Torque of each pull at the speeds.
    pub curves: Vec<Vec<f64>>,
    /// Figures of each.
    pub figures: Vec<Figures>,
    /// What differs, where pulls tell it.
    pub differs: Option<Differs>,
    /// What is odd; places among those that count.
    pub odd: Vec<Odd>,
}

/// What differs.
pub struct Differs {
    /// Of the average torque.
    pub average_torque: Fitted,
    /// Of the average power.
    pub average_power: Fitted,
    /// Of the highest torque.
    pub peak_torque: Fitted,
    /// Of the highest power.
    pub peak_power: Fitted,
    /// Of its speed.
    pub peak_power_at: Fitted,
    /// Over speed: the mean of every combination, then every other one against the baseline.
    pub over_speed: OverSpeed,
    /// Whether drift could be told from what differs.
    pub has_drift: bool,
}

impl Tested {
    /// Of all pulls of a document.
    pub fn of(all: &[Pulled], plan: &Plan) -> Self {
        let (counted, kept_out) = sift(all);
        let speeds = speeds_of(all, &counted);
        let within = |rpm: &f64| plan.band.is_none_or(|(from, to)| (from - 0.5..=to + 0.5).contains(rpm));
        let first = speeds.iter().position(within).unwrap_or(0);
        let past = speeds.iter().rposition(within).map_or(0, |last| last + 1);
        // Pulls that do not reach the band are averaged over what they have.
        let band = if past > first + 1 { first..past } else { 0..speeds.len() };
        let curves: Vec<Vec<f64>> = counted.par_iter().map(|place| at(&all[*place].counted, &speeds)).collect();
        let combinations = combinations(all, &counted, plan);
        let design = design(all, &counted, &combinations);
        let averaged = |curve: &Vec<f64>| figures(&speeds[band.clone()], &curve[band.clone()]);
        let averages: Option<Vec<Figures>> = curves.iter().map(averaged).collect();
        let peaks: Option<Vec<Figures>> = curves.iter().map(|curve| figures(&speeds, curve)).collect();
        let figures: Vec<Figures> = averages
            .zip(peaks)
            .map(|(averages, peaks)| averages.into_iter().zip(peaks).map(both).collect())
            .unwrap_or_default();
        let averages: Vec<f64> = figures.iter().map(|own: &Figures| own.average_torque).collect();
        let (odd, differs) = rayon::join(
            || if figures.is_empty() { Vec::new() } else { odd(&design, &averages, &curves) },
            || differs(&design, combinations.len(), &figures, &curves),
        );
        Self { counted, kept_out, speeds, band, combinations, design, curves, figures, differs, odd }
    }
}

/// What was measured of one combination: the mean of its pulls.
pub struct Measured {
    /// Identifier of the candidate.
    pub candidate: String,
    /// As people call it.
    pub name: String,
    /// Boost level, where pulls name one.
    pub level: Option<String>,
    /// rpm, and N m at the crank in the plan's air.
    pub points: Vec<(f64, f64)>,
}

/// The mean of every combination whose pulls count; none of a document that has only the old single pull.
pub fn measured(build: &Build) -> Vec<Measured> {
    let all = pulled(build, None);
    if all.iter().all(|own| own.id == FIRST) {
        return Vec::new();
    }
    let tested = Tested::of(&all, &Plan::of(build));
    let mean = |place: usize| {
        let own: Vec<usize> =
            (0..tested.curves.len()).filter(|pull| tested.design.combination[*pull] == place).collect();
        let first = &all[tested.counted[*own.first()?]];
        let points = tested.speeds.iter().copied().zip(tested.mean(place)).collect();
        Some(Measured { candidate: first.candidate.clone(), name: first.called(), level: first.level.clone(), points })
    };
    (0..tested.combinations.len()).filter_map(mean).collect()
}

impl Tested {
    /// Mean torque of a combination at every speed: with day and drift taken out where pulls tell them, else as it is.
    pub fn mean(&self, combination: usize) -> Vec<f64> {
        if let Some(differs) = &self.differs {
            return differs.over_speed.at[combination].iter().map(|own| own.difference).collect();
        }
        let own: Vec<&Vec<f64>> = self
            .curves
            .iter()
            .zip(&self.design.combination)
            .filter(|(_, of)| **of == combination)
            .map(|own| own.0)
            .collect();
        let mean = |speed: usize| own.iter().map(|curve| curve[speed]).sum::<f64>() / own.len() as f64;
        (0..self.speeds.len()).map(mean).collect()
    }
}

/// Averages over the band, peaks wherever they lie.
fn both((averages, peaks): (Figures, Figures)) -> Figures {
    Figures { average_torque: averages.average_torque, average_power: averages.average_power, ..peaks }
}

/// Pulls that can be compared, and why others cannot.
fn sift(all: &[Pulled]) -> (Vec<usize>, Vec<Kept>) {
    let mut kept_out = Vec::new();
    let mut counted: Vec<usize> = (0..all.len()).filter(|place| all[*place].left_out.is_none()).collect();
    let mut drop = |places: &mut Vec<usize>, kind: FlagKind, by: &dyn Fn(usize) -> Option<f64>| {
        places.retain(|place| match by(*place) {
            Some(by) => {
                kept_out.push(Kept { pull: *place, kind, by });
                false
            }
            None => true,
        });
    };
    let twice =
        |place: usize| (0..place).find(|other| all[*other].points == all[place].points).map(|other| other as f64);
    drop(&mut counted, FlagKind::Twice, &twice);
    let span = |place: usize| all[place].span().map_or(0.0, |(from, to)| to - from);
    let usual = median(&counted.iter().map(|place| span(*place)).collect::<Vec<_>>());
    let short = |place: usize| {
        let own = if usual > 0.0 { span(place) / usual } else { 0.0 };
        (own < COVERS || all[place].counted.len() < 3).then_some(own)
    };
    drop(&mut counted, FlagKind::Short, &short);
    let speeds = speeds_of(all, &counted);
    if counted.len() < 3 || speeds.len() < 3 {
        return (counted, kept_out);
    }
    let curves: Vec<(usize, Vec<f64>)> =
        counted.par_iter().map(|place| (*place, at(&all[*place].counted, &speeds))).collect();
    let mean = |curve: &[f64]| curve.iter().sum::<f64>() / curve.len() as f64;
    let usual = median(&curves.iter().map(|(_, curve)| mean(curve)).collect::<Vec<_>>());
    let strange = |place: usize| {
        let own = curves.iter().find(|(own, _)| *own == place).map_or(usual, |(_, curve)| mean(curve));
        ((own / usual - 1.0).abs() > STRANGE).then_some(own / usual)
    };
    drop(&mut counted, FlagKind::Stranger, &strange);
    (counted, kept_out)
}

/// Even speeds that pulls have in common; none where there are none.
fn speeds_of(all: &[Pulled], places: &[usize]) -> Vec<f64> {
    common(places.iter().filter_map(|place| all[*place].span()))
}

/// The baseline first: the control by the plan, by what pulls say, or what was pulled first.
fn combinations(all: &[Pulled], counted: &[usize], plan: &Plan) -> Vec<String> {
    let planned = counted.iter().find(|place| plan.control.as_deref() == Some(&all[**place].candidate));
    let said = counted.iter().find(|place| all[**place].control);
    let mut found: Vec<String> =
        planned.or(said).or(counted.first()).map(|place| all[*place].combination()).into_iter().collect();
    for place in counted {
        let own = all[*place].combination();
        if !found.contains(&own) {
            found.push(own);
        }
    }
    found
}

fn design(all: &[Pulled], counted: &[usize], combinations: &[String]) -> Design {
    let mut days: Vec<&str> = Vec::new();
    let mut design = Design { combination: Vec::new(), day: Vec::new(), at: Vec::new() };
    for (order, place) in counted.iter().enumerate() {
        let pull = &all[*place];
        let day = days.iter().position(|day| *day == pull.day).unwrap_or_else(|| {
            days.push(&pull.day);
            days.len() - 1
        });
        let own = pull.combination();
        design.combination.push(combinations.iter().position(|name| *name == own).unwrap_or(0));
        // Without a place in the day, that among the pulls of the day.
        let nth = counted[..order].iter().filter(|other| all[**other].day == pull.day).count() + 1;
        design.day.push(day);
        design.at.push(pull.drawn.unwrap_or(nth) as f64);
    }
    design
}

fn differs(design: &Design, combinations: usize, figures: &[Figures], curves: &[Vec<f64>]) -> Option<Differs> {
    let still = Design { at: vec![0.0; design.at.len()], ..design.clone() };
    let of = |design: &Design| {
        let means = (0..combinations).map(Target::Mean);
        let targets: Vec<Target> = means.chain((1..combinations).map(|own| Target::More(own, 0))).collect();
        let over_speed = over_speed(design, curves, &targets, HELD, LOT)?;
        let figure: [fn(&Figures) -> f64; 5] = [
            |own| own.average_torque,
            |own| own.average_power,
            |own| own.peak_torque.0,
            |own| own.peak_power.0,
            |own| own.peak_power.1,
        ];
        let fitted = figure
            .par_iter()
            .map(|of| fit(design, &figures.iter().map(of).collect::<Vec<f64>>()))
            .collect::<Option<Vec<Fitted>>>()?;
        let [average_torque, average_power, peak_torque, peak_power, peak_power_at] = fitted.try_into().ok()?;
        Some(Differs {
            average_torque,
            average_power,
            peak_torque,
            peak_power,
            peak_power_at,
            over_speed,
            has_drift: design.at.windows(2).any(|pair| pair[0] != pair[1]),
        })
    };
    if figures.is_empty() {
        return None;
    }
    of(design).or_else(|| of(&still))
}
