//! What pulls come to, in words and as a report.

use super::pulled::Pulled;
use super::pulling::{HELD, Kept, Plan, Tested};
use super::pulling_scatter::scatter;
use crate::bench::repeated;
use crate::pulls::air::Standard;
use crate::pulls::{Contrast, Fitted};
use crate::quantity::{Dimension, Shown, UnitSystem, format_finer};
use crate::report::{
    Believed, CombinationReport, DifferenceReport, DriftReport, FlagKind, MeanFigure, OverSpeedReport, PointIs,
    PullReport, PullsReport, RepeatsReport,
};

/// What is done with pulls, as the page states it.
const MODEL: &str = "Each figure of a pull is its combination's mean, plus its day's own level, plus a drift from pull to pull, plus chance: \
                     a linear mixed model by restricted likelihood, intervals by Student's t with Satterthwaite's degrees of freedom. The band \
                     over all speeds is wider than the interval at one, so that looking at many of them raises no more false alarms.";

/// Degrees of freedom below which nothing is believed: two pulls that came out alike by chance would be certain of anything.
pub(super) const FEWEST: f64 = 3.0;

/// All there is to be worded.
pub struct Told<'a> {
    /// Every pull.
    pub all: &'a [Pulled],
    /// What the document says of the test.
    pub plan: &'a Plan,
    /// What was compared.
    pub tested: &'a Tested,
    /// The air asked for.
    pub standard: Option<Standard>,
}

/// The report.
pub(super) fn report(told: &Told<'_>) -> PullsReport {
    let Told { all, tested, standard, .. } = told;
    let differences = told.differences();
    let drift = told.drift();
    PullsReport {
        says: told.says(&differences),
        air: standard.map_or("the plan's air", Standard::name).to_owned(),
        model: MODEL.to_owned(),
        baseline: tested.combinations.first().cloned(),
        band_rpm: tested.speeds.get(tested.band.clone()).and_then(|band| Some([*band.first()?, *band.last()?])),
        speed_rpm: tested.speeds.clone(),
        pulls: all.iter().enumerate().map(|(place, own)| told.pull(place, own)).collect(),
        rows: told.rows(),
        over_speed: told.over_speed(),
        scatter: scatter(tested, |id| told.name(id), interval),
        drift_per_pull: drift,
        repeats: told.repeats(),
        board: told.board(),
        flags: told.flags(),
        surer: told.surer(&differences),
        differences,
    }
}

/// A torque with a digit more than usual: pulls differ by less than a pound-foot.
pub(super) fn fine(nm: f64) -> Shown {
    finer(nm, Dimension::Torque)
}

pub(super) fn finer(si: f64, dimension: Dimension) -> Shown {
    Shown {
        inch: format_finer(si, dimension, UnitSystem::Inch),
        metric: format_finer(si, dimension, UnitSystem::Metric),
    }
}

/// The same with its sign.
pub(super) fn signed(si: f64, dimension: Dimension) -> Shown {
    let sign = if si > 0.0 { "+" } else { "" };
    finer(si, dimension).said(|text| format!("{sign}{text}"))
}

/// Several texts in one sentence, in both systems.
pub(super) fn joined(parts: &[&Shown], words: impl Fn(&[&str]) -> String) -> Shown {
    let of = |system: UnitSystem| words(&parts.iter().map(|part| part.text(system)).collect::<Vec<_>>());
    Shown { inch: of(UnitSystem::Inch), metric: of(UnitSystem::Metric) }
}

impl Told<'_> {
    pub(super) fn name(&self, combination: &str) -> String {
        let own = self.all.iter().find(|pull| pull.combination() == combination);
        own.map_or_else(|| combination.to_owned(), Pulled::called)
    }

    fn says(&self, differences: &[DifferenceReport]) -> Shown {
        let tested = self.tested;
        let Some(first) = tested.combinations.first() else {
            return Shown::plain("No pull yet. Plan the test, or take in the file of a dyno.");
        };
        let baseline = self.name(first);
        if tested.figures.is_empty() {
            return Shown::plain("The pulls have no speeds in common: they cannot be compared.");
        }
        if tested.combinations.len() == 1 {
            let mean = tested.figures.iter().map(|own| own.average_torque).sum::<f64>() / tested.figures.len() as f64;
            let count = tested.figures.len();
            return fine(mean).said(|torque| {
                format!("{count} {} of {baseline}, {torque} on average; nothing to compare it with.", pulls(count))
            });
        }
        let Some(best) = differences
            .iter()
            .filter(|own| own.what == "average_torque")
            .max_by(|one, other| one.by.total_cmp(&other.by))
        else {
            return Shown::plain(
                "Each combination needs a second pull, and the control one at the end: so far nothing tells a difference from chance.",
            );
        };
        let (name, share) = (&best.name, percent(best.certain_share));
        best.shown.clone().said(|by| match best.believed {
            Believed::More => format!("{name} makes more than {baseline}: {by} on average, {share} sure."),
            Believed::Less => format!("Nothing beats {baseline}: {name} comes next with {by} on average."),
            Believed::NotShown => {
                format!("{name} and {baseline} are not told apart: {by} on average, {share} sure that it makes more.")
            }
        })
    }

    fn pull(&self, place: usize, own: &Pulled) -> PullReport {
        let tested = self.tested;
        let at = tested.counted.iter().position(|counted| *counted == place);
        let figures = at.and_then(|at| tested.figures.get(at));
        let kept = tested.kept_out.iter().find(|kept| kept.pull == place);
        let why_not = match (&own.left_out, kept) {
            (Some(why), _) => why.clone(),
            (None, Some(kept)) => self.why_kept_out(kept),
            (None, None) => String::new(),
        };
        let same_day = self.all[..place].iter().filter(|other| other.day == own.day).count();
        PullReport {
            id: own.id.clone(),
            field: own.field.clone(),
            candidate: own.candidate.clone(),
            name: own.called(),
            day: own.day.clone(),
            drawn: own.drawn.unwrap_or(same_day + 1),
            counted: at.is_some(),
            why_not,
            speed_rpm: own.points.iter().map(|point| point.0).collect(),
            torque_nm: own.points.iter().map(|point| point.1).collect(),
            points: own.left.iter().map(|left| PointIs::from(*left)).collect(),
            trimmed: trimmed(own),
            factor: own.factor,
            average_torque: figures.map(|own| fine(own.average_torque)),
            average_torque_nm: figures.map(|own| own.average_torque),
            peak_power: figures.map(|own| finer(own.peak_power.0, Dimension::Power)),
        }
    }

    pub(super) fn why_kept_out(&self, kept: &Kept) -> String {
        match kept.kind {
            FlagKind::Twice => {
                let other = self.all.get(kept.by as usize).map_or("", |own| own.id.as_str());
                format!("the same points as {other}")
            }
            FlagKind::Short => format!("it has {} of the speeds the others have", percent(kept.by)),
            _ => format!("its torque is {:.2} times that of the others: another engine, or another unit", kept.by),
        }
    }

    fn rows(&self) -> Vec<CombinationReport> {
        let tested = self.tested;
        let row = |(place, name): (usize, &String)| {
            let own: Vec<usize> =
                (0..tested.figures.len()).filter(|pull| tested.design.combination[*pull] == place).collect();
            let fitted = |speed: usize| tested.differs.as_ref()?.over_speed.at.get(place)?.get(speed);
            let doubt = |speed: usize| fitted(speed).map(|own| own.half_width(HELD));
            let speeds = 0..tested.speeds.len();
            let average = tested.differs.as_ref().and_then(|differs| differs.average_torque.means.get(place)).copied();
            let plain = own.iter().map(|pull| tested.figures[*pull].average_torque).sum::<f64>() / own.len() as f64;
            CombinationReport {
                candidate: name.clone(),
                name: self.name(name),
                n: own.len(),
                torque_nm: tested.mean(place),
                doubt_nm: speeds.map(doubt).collect(),
                average_torque_nm: average.unwrap_or(plain),
                figures: self.mean_figures(&own),
            }
        };
        if tested.figures.is_empty() {
            return Vec::new();
        }
        tested.combinations.iter().enumerate().map(row).collect()
    }

    fn mean_figures(&self, own: &[usize]) -> Vec<MeanFigure> {
        let figures = &self.tested.figures;
        let figure = |title: &str, dimension: Dimension, of: &dyn Fn(usize) -> f64| {
            let values: Vec<f64> = own.iter().map(|pull| of(*pull)).collect();
            repeated(&values).map(|own| MeanFigure {
                title: title.to_owned(),
                mean: finer(own.mean, dimension),
                sd: own.sd.map(|sd| finer(sd, dimension)),
            })
        };
        let rpm = std::f64::consts::PI / 30.0;
        let all = [
            figure("Average torque", Dimension::Torque, &|own| figures[own].average_torque),
            figure("Average power", Dimension::Power, &|own| figures[own].average_power),
            figure("Peak torque", Dimension::Torque, &|own| figures[own].peak_torque.0),
            figure("at", Dimension::Speed, &|own| figures[own].peak_torque.1 * rpm),
            figure("Peak power", Dimension::Power, &|own| figures[own].peak_power.0),
            figure("at", Dimension::Speed, &|own| figures[own].peak_power.1 * rpm),
        ];
        all.into_iter().flatten().collect()
    }

    fn differences(&self) -> Vec<DifferenceReport> {
        let tested = self.tested;
        let Some(differs) = &tested.differs else { return Vec::new() };
        let rpm = std::f64::consts::PI / 30.0;
        let columns: [(&str, &str, &Fitted, Dimension, f64); 5] = [
            ("average_torque", "Average torque", &differs.average_torque, Dimension::Torque, 1.0),
            ("average_power", "Average power", &differs.average_power, Dimension::Power, 1.0),
            ("peak_torque", "Peak torque", &differs.peak_torque, Dimension::Torque, 1.0),
            ("peak_power", "Peak power", &differs.peak_power, Dimension::Power, 1.0),
            ("peak_power_at", "Speed of peak power", &differs.peak_power_at, Dimension::Speed, rpm),
        ];
        let mut found = Vec::new();
        for (place, a) in tested.combinations.iter().enumerate().skip(1) {
            for (what, title, fitted, dimension, si) in columns {
                let Some(contrast) = fitted.contrast(place, 0) else { continue };
                found.push(self.difference((a, what, title), &contrast, dimension, si));
            }
        }
        found
    }

    fn difference(
        &self,
        (a, what, title): (&str, &str, &str),
        contrast: &Contrast,
        dimension: Dimension,
        si: f64,
    ) -> DifferenceReport {
        let half = contrast.half_width(HELD);
        let (low, high) = (contrast.difference - half, contrast.difference + half);
        let unit = match dimension {
            Dimension::Torque => ("N m", 1.0),
            Dimension::Power => ("kW", 1e-3),
            _ => ("rpm", 1.0),
        };
        DifferenceReport {
            a: a.to_owned(),
            b: self.tested.combinations[0].clone(),
            name: self.name(a),
            what: what.to_owned(),
            title: title.to_owned(),
            unit: unit.0.to_owned(),
            by: contrast.difference * unit.1,
            low: low * unit.1,
            high: high * unit.1,
            certain_share: contrast.certainty(),
            certain: percent(contrast.certainty()),
            believed: if contrast.freedom < FEWEST {
                Believed::NotShown
            } else if low > 0.0 {
                Believed::More
            } else if high < 0.0 {
                Believed::Less
            } else {
                Believed::NotShown
            },
            shown: interval(contrast.difference * si, (low * si, high * si), dimension),
        }
    }

    fn over_speed(&self) -> Vec<OverSpeedReport> {
        let tested = self.tested;
        let Some(differs) = &tested.differs else { return Vec::new() };
        let (count, together_t) = (tested.combinations.len(), differs.over_speed.together);
        let own = |(place, at): (usize, &Vec<Contrast>)| {
            let by: Vec<f64> = at.iter().map(|own| own.difference).collect();
            let together: Vec<f64> = at.iter().map(|own| own.error * together_t).collect();
            let sign = |speed: usize| i8::from(by[speed] > together[speed]) - i8::from(by[speed] < -together[speed]);
            let real = ranges(&tested.speeds, sign);
            let a = &tested.combinations[place + 1];
            OverSpeedReport {
                a: a.clone(),
                b: tested.combinations[0].clone(),
                says: self.over_speed_says(a, &real, &by),
                alone_nm: at.iter().map(|own| own.half_width(HELD)).collect(),
                by_nm: by,
                together_nm: together,
                real_rpm: real,
            }
        };
        differs.over_speed.at[count..].iter().enumerate().map(own).collect()
    }

    fn over_speed_says(&self, a: &str, real: &[[f64; 2]], by: &[f64]) -> Shown {
        let name = self.name(a);
        if real.is_empty() {
            return Shown::plain(format!("{name}: at no speed beyond what chance makes at some speed or other."));
        }
        let speeds = &self.tested.speeds;
        let parts: Vec<String> = real
            .iter()
            .map(|[from, to]| {
                let within = speeds.iter().zip(by).filter(|(rpm, _)| (*from..=*to).contains(*rpm)).map(|(_, by)| *by);
                let more = within.sum::<f64>() > 0.0;
                format!("{} from {from:.0} to {to:.0} rpm", if more { "more" } else { "less" })
            })
            .collect();
        Shown::plain(format!("{name}: {} beyond chance, all speeds held at once.", parts.join(", ")))
    }

    fn drift(&self) -> Option<DriftReport> {
        let own = self.tested.differs.as_ref()?.average_torque.drifting()?;
        let half = own.half_width(HELD);
        let ends = (own.difference - half, own.difference + half);
        Some(DriftReport {
            by_nm: own.difference,
            is_real: own.difference.abs() > half,
            shown: interval(own.difference, ends, Dimension::Torque).said(|own| own.replacen(" (", " a pull (", 1)),
        })
    }

    fn repeats(&self) -> Option<RepeatsReport> {
        let fitted = &self.tested.differs.as_ref()?.average_torque;
        if fitted.freedom() < FEWEST {
            return None;
        }
        let sd = fitted.variance.sqrt();
        Some(RepeatsReport { sd_nm: sd, shown: fine(sd), freedom: fitted.freedom() })
    }
}

fn trimmed(own: &Pulled) -> String {
    let count = |what: PointIs| own.left.iter().filter(|left| PointIs::from(**left) == what).count();
    let parts = [
        (PointIs::RollOn, "before the throttle was open"),
        (PointIs::ThrottleClosed, "after it had closed"),
        (PointIs::Spike, "far off their neighbours"),
        (PointIs::Slower, "while it slowed down"),
        (PointIs::OutOfRange, "outside of what is counted"),
    ];
    let said: Vec<String> = parts
        .into_iter()
        .filter(|(what, _)| count(*what) > 0)
        .map(|(what, words)| format!("{} {words}", count(what)))
        .collect();
    if said.is_empty() {
        String::new()
    } else {
        format!("of {} points not counted: {}", own.points.len(), said.join(", "))
    }
}

/// Ranges of speeds in which `sign` is the same and not nought; a gap of a speed or two within one is none.
fn ranges(speeds: &[f64], sign: impl Fn(usize) -> i8) -> Vec<[f64; 2]> {
    const GAP: usize = 2;
    let mut found: Vec<(usize, usize, i8)> = Vec::new();
    for place in (0..speeds.len()).filter(|place| sign(*place) != 0) {
        match found.last_mut().filter(|last| last.2 == sign(place) && place - last.1 <= GAP + 1) {
            Some(last) => last.1 = place,
            None => found.push((place, place, sign(place))),
        }
    }
    found.into_iter().map(|(from, to, _)| [speeds[from], speeds[to]]).collect()
}

/// A certainty as people say it: nothing measured is certain.
fn percent(share: f64) -> String {
    match share {
        own if own > 0.995 => "over 99 %".to_owned(),
        own if own < 0.005 => "under 1 %".to_owned(),
        own => format!("{:.0} %", 100.0 * own),
    }
}

/// An interval with its unit once: "+7.8 lbf ft (+5.8 to +9.8)".
fn interval(by: f64, (low, high): (f64, f64), dimension: Dimension) -> Shown {
    let parts = [by, low, high].map(|own| signed(own, dimension));
    joined(&[&parts[0], &parts[1], &parts[2]], |own| {
        let bare = |text: &str| text.split_once(' ').map_or(text, |(number, _)| number).to_owned();
        format!("{} ({} to {})", own[0], bare(own[1]), bare(own[2]))
    })
}

pub(super) const fn pulls(count: usize) -> &'static str {
    if count == 1 { "pull" } else { "pulls" }
}
