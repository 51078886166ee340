//! What a score board may have as a column, and what a candidate comes to in it.

use crate::choose::{Beside, Better, Goal, Interval, Standing};
use crate::document::{CandidateView, Ledger, Node};
use crate::limits::Judgement;
use crate::quantity::{Dimension, Shown, Speed, shown, shown_stress, shown_vacuum};
use crate::report::BreathingReport;
use crate::table::held;
use crate::words::{Scored, Word};

/// One column of a board: what, how much it counts, and over which speeds, rpm.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(super) struct Column {
    pub scored: Scored,
    pub weight: f64,
    pub from: Option<f64>,
    pub to: Option<f64>,
}

/// Everything a candidate is scored by.
pub(super) struct Known<'a> {
    pub curve: Option<&'a BreathingReport>,
    pub judgement: &'a Judgement,
    pub beside: Beside,
}

impl Scored {
    /// As a heading.
    pub(super) const fn title(self) -> &'static str {
        match self {
            Self::AverageTorque => Goal::AverageTorque.title(),
            Self::PeakTorque => "Peak torque",
            Self::AveragePower => "Average power",
            Self::PeakPower => "Peak power",
            Self::UnderCurve => "Under the curve",
            Self::IdleVacuum => "Idle vacuum",
            Self::Control => Goal::Control.title(),
            Self::Margin => "Least margin",
            Self::Life => Goal::Life.title(),
            Self::GuidePressure => "Pressure on the guide",
            Self::Money => Goal::Money.title(),
        }
    }

    pub(super) const fn better(self) -> Better {
        match self {
            Self::GuidePressure | Self::Money => Better::Lower,
            _ => Better::Higher,
        }
    }

    /// Unit of the values.
    pub(super) const fn unit(self) -> &'static str {
        match self {
            Self::AverageTorque | Self::PeakTorque => "N m",
            Self::AveragePower | Self::PeakPower => "kW",
            Self::UnderCurve => "kW 1000 rpm",
            Self::IdleVacuum => "kPa",
            Self::Control => "rpm",
            Self::Margin => "of what makes it tight",
            Self::Life => "interval",
            Self::GuidePressure => "MPa",
            Self::Money => "USD",
        }
    }

    /// Steps in which values are told apart, in their unit: nearer ones tie.
    const fn step(self) -> f64 {
        match self {
            Self::AverageTorque | Self::PeakTorque | Self::AveragePower | Self::PeakPower | Self::UnderCurve => 0.1,
            Self::IdleVacuum => 0.1,
            Self::Control => 10.0,
            Self::Margin => 0.01,
            Self::Life => 1.0,
            Self::GuidePressure => 0.01,
            Self::Money => 1.0,
        }
    }
}

impl Column {
    /// The columns a document asks for; where it asks for none, those of a contest on the dyno, and of an engine that is not
    /// raced what it costs to live with.
    pub fn all(view: &CandidateView<'_>, is_raced: bool) -> Vec<Self> {
        let ledger = Ledger::default();
        let target = view.target(&ledger);
        let rows = target.children("score");
        let row = |row: &Node<'_>| {
            let speed = |key: &str| row.quantity::<Speed>(key).map(Speed::as_rpm);
            Some(Self {
                scored: Scored::from_word(row.word("column")?)?,
                weight: row.number("weight").unwrap_or(1.0),
                from: speed("from"),
                to: speed("to"),
            })
        };
        let asked: Vec<Self> = rows.iter().filter_map(row).collect();
        if !asked.is_empty() {
            return asked;
        }
        let contest = [Scored::AverageTorque, Scored::AveragePower, Scored::PeakTorque, Scored::PeakPower];
        let lived_with = [Scored::Control, Scored::Life, Scored::Money];
        let all = contest.into_iter().chain(lived_with.into_iter().filter(|_| !is_raced));
        all.map(|scored| Self { scored, weight: 1.0, from: None, to: None }).collect()
    }

    /// The speeds it is over, rpm, for a curve; of peaks none where none are asked for.
    pub fn over(&self, curve: &BreathingReport) -> Option<(f64, f64)> {
        let [from, to] = curve.band_rpm;
        let is_of_band = matches!(self.scored, Scored::AverageTorque | Scored::AveragePower | Scored::UnderCurve);
        let is_peak = matches!(self.scored, Scored::PeakTorque | Scored::PeakPower);
        (is_of_band || is_peak && self.is_asked()).then(|| (self.from.unwrap_or(from), self.to.unwrap_or(to)))
    }

    /// Whether speeds of its own are asked for.
    const fn is_asked(&self) -> bool {
        self.from.is_some() || self.to.is_some()
    }

    /// What a candidate comes to, to the steps values are told apart in; `None` where it is not known.
    pub fn value(&self, known: &Known<'_>) -> Option<f64> {
        let curve = known.curve;
        let value = match self.scored {
            // Over the band it is the figure that stands everywhere else.
            Scored::AverageTorque if !self.is_asked() => curve?.average_torque_nm?,
            Scored::AveragePower if !self.is_asked() => curve?.average_power_kw?,
            Scored::AverageTorque => self.mean(curve?, &curve?.torque_nm)?,
            Scored::AveragePower => self.mean(curve?, &curve?.power_kw)?,
            Scored::UnderCurve => {
                let (from, to) = self.over(curve?)?;
                self.mean(curve?, &curve?.power_kw)? * (to - from) * 1e-3
            }
            Scored::PeakTorque => self.peak(curve?, &curve?.torque_nm, curve?.peak_torque_nm)?,
            Scored::PeakPower => self.peak(curve?, &curve?.power_kw, curve?.peak_power_kw)?,
            Scored::IdleVacuum => curve?.idle.as_ref()?.vacuum_kpa.unwrap_or(0.0),
            Scored::Control => known.beside.control?,
            Scored::Margin => least_margin(known.judgement)?,
            Scored::Life => known.beside.interval?,
            Scored::GuidePressure => guide_pressure(known.judgement)?,
            Scored::Money => known.beside.money,
        };
        let step = self.scored.step();
        value.is_finite().then(|| (value / step).round() * step + 0.0)
    }

    /// Mean over its speeds by trapezoids, `None` where the curve does not reach over them.
    fn mean(&self, curve: &BreathingReport, values: &[f64]) -> Option<f64> {
        let (from, to) = self.over(curve)?;
        let points = between(&curve.speed_rpm, values, (from, to))?;
        let area: f64 = points.windows(2).map(|two| 0.5 * (two[1].0 - two[0].0) * (two[0].1 + two[1].1)).sum();
        (to > from).then(|| area / (to - from))
    }

    /// Most over its speeds, or the curve's own peak where none are asked for.
    fn peak(&self, curve: &BreathingReport, values: &[f64], whole: f64) -> Option<f64> {
        match self.over(curve) {
            None => Some(whole),
            Some(range) => between(&curve.speed_rpm, values, range)?.iter().map(|point| point.1).reduce(f64::max),
        }
    }

    /// A value as it is read.
    pub fn shown(&self, value: f64, interval: Option<Interval>) -> Shown {
        match self.scored {
            Scored::AverageTorque | Scored::PeakTorque => shown(value, Dimension::Torque),
            Scored::AveragePower | Scored::PeakPower => shown(value * 1e3, Dimension::Power),
            Scored::UnderCurve => Shown {
                inch: format!("{:.0} hp 1000 rpm", value / 0.745_699_9),
                metric: format!("{value:.0} kW 1000 rpm"),
            },
            Scored::IdleVacuum => shown_vacuum(value * 1e3),
            Scored::Control => Shown::plain(format!("{value:+.0} rpm").replace('-', "\u{2212}")),
            Scored::Margin => Shown::plain(format!("{value:.2}").replace('-', "\u{2212}")),
            Scored::Life => {
                let counted_in = interval.map_or("", |interval| interval.counted_in.word());
                Goal::Life.shown(value, counted_in)
            }
            Scored::GuidePressure => shown_stress(value * 1e6),
            Scored::Money => shown(value, Dimension::Money),
        }
    }
}

/// A curve between two speeds, its ends interpolated; `None` where it does not reach over them.
fn between(speeds: &[f64], values: &[f64], (from, to): (f64, f64)) -> Option<Vec<(f64, f64)>> {
    let known: Vec<(f64, f64)> = speeds.iter().copied().zip(values.iter().copied()).collect();
    let (first, last) = (known.first()?.0, known.last()?.0);
    if from < first - 1.0 || to > last + 1.0 {
        return None;
    }
    let inside = known.iter().copied().filter(|(rpm, _)| (from..to).contains(rpm) && *rpm > from);
    let ends = [(from, held(&known, from)), (to, held(&known, to))];
    Some(std::iter::once(ends[0]).chain(inside).chain([ends[1]]).collect())
}

/// What is left of the limit with the least left, of what makes each tight.
fn least_margin(judgement: &Judgement) -> Option<f64> {
    let standing = Standing::of(judgement);
    let hard = standing.margins.iter().filter(|margin| !margin.is_advice);
    hard.map(|margin| margin.left / margin.scale).reduce(f64::min)
}

/// Pressure between stem and guide, the worse of both valves, MPa.
fn guide_pressure(judgement: &Judgement) -> Option<f64> {
    let own = judgement.figures.iter().filter(|judged| judged.rule.id == "guide_pressure");
    own.filter_map(|judged| Some(judged.found.as_ref().ok()?.have)).reduce(f64::max).map(|pa| pa * 1e-6)
}
