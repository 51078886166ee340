//! What a rule is, and how a finding becomes a line of the margins.

use crate::candidate::{Gap, Inputs, Part, Stages};
use crate::document::{InputUsed, Node, Side, limit_figure};
use crate::quantity::{Dimension, Shown, UnitSystem, format_si, shown_fine, shown_stress, shown_vacuum};
use crate::report::{LimitReport, LimitShown, NeedReport, Place, Sense, Verdict};

/// What need, have and margin are measured in.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Measure {
    /// Lengths, reported in mm.
    Length,
    /// Lengths of some ten-thousandths of an inch, reported in mm.
    Fine,
    /// Loads, reported in N.
    Force,
    /// Crank speeds, reported in rpm.
    Speed,
    /// Crank angles, reported in degrees.
    Angle,
    /// Ratios to one, with two decimals.
    Ratio,
    /// Shares, reported in per cent.
    Share,
    /// Pressures, reported in kPa.
    Pressure,
    /// Stresses, reported in MPa and read in ksi.
    Stress,
    /// Pressures below outside air, reported in kPa and read in inches of mercury.
    Vacuum,
    /// Money, never converted.
    Money,
    /// Plain numbers, whole as read.
    Number,
}

impl Measure {
    /// What a bound is written in; `None` for plain numbers.
    pub fn dimension(self) -> Option<Dimension> {
        match self {
            Self::Length | Self::Fine => Some(Dimension::Length),
            Self::Force => Some(Dimension::Force),
            Self::Speed => Some(Dimension::Speed),
            Self::Angle => Some(Dimension::Angle),
            Self::Pressure | Self::Vacuum | Self::Stress => Some(Dimension::Pressure),
            Self::Money => Some(Dimension::Money),
            Self::Ratio | Self::Share | Self::Number => None,
        }
    }

    /// Unit and SI value of one unit in the report.
    fn reported(self) -> (&'static str, f64) {
        match self {
            Self::Length | Self::Fine => ("mm", 1e-3),
            Self::Force => ("N", 1.0),
            Self::Speed => ("rpm", std::f64::consts::PI / 30.0),
            Self::Angle => ("deg", std::f64::consts::PI / 180.0),
            Self::Ratio => (":1", 1.0),
            Self::Share => ("%", 0.01),
            Self::Pressure | Self::Vacuum => ("kPa", 1e3),
            Self::Stress => ("MPa", 1e6),
            Self::Money => ("USD", 1.0),
            Self::Number => ("", 1.0),
        }
    }

    /// `si` in the report's unit.
    pub fn to_report(self, si: f64) -> f64 {
        si / self.reported().1
    }

    /// `si` as read in both systems.
    pub fn shown(self, si: f64) -> Shown {
        if self == Self::Vacuum {
            return shown_vacuum(si);
        }
        if self == Self::Stress {
            return shown_stress(si);
        }
        if self == Self::Fine {
            return shown_fine(si);
        }
        let one = |system: UnitSystem| match self.dimension() {
            Some(dimension) => format_si(si, dimension, system),
            None if self == Self::Share => format!("{:.1} %", si * 100.0),
            None if self == Self::Number => format!("{si:.0}"),
            None => format!("{si:.2}"),
        };
        Shown { inch: one(UnitSystem::Inch), metric: one(UnitSystem::Metric) }
    }

    /// `si` as read, with its sign.
    pub fn shown_signed(self, si: f64) -> Shown {
        let Shown { inch, metric } = self.shown(si);
        let sign = |text: String| if text.starts_with('-') { text } else { format!("+{text}") };
        Shown { inch: sign(inch), metric: sign(metric) }
    }
}

/// A rule held against a candidate: everything in SI.
#[derive(Debug, Clone, PartialEq)]
pub struct Finding {
    /// Least that is needed.
    pub min: Option<f64>,
    /// Most that is allowed.
    pub max: Option<f64>,
    /// Met with less than this left is tight.
    pub tight: f64,
    /// What there is.
    pub have: f64,
}

impl Finding {
    /// At least `min`.
    pub const fn at_least(min: f64, tight: f64, have: f64) -> Self {
        Self { min: Some(min), max: None, tight, have }
    }

    /// At most `max`.
    pub const fn at_most(max: f64, tight: f64, have: f64) -> Self {
        Self { min: None, max: Some(max), tight, have }
    }

    /// What is left over.
    pub fn margin(&self) -> f64 {
        let above = self.min.map_or(f64::INFINITY, |min| self.have - min);
        let below = self.max.map_or(f64::INFINITY, |max| max - self.have);
        above.min(below)
    }

    /// The verdict; a nanometre of rounding is not a failure.
    pub fn verdict(&self) -> Verdict {
        let slack = 1e-9;
        match self.margin() {
            m if m.is_nan() => Verdict::Unknown,
            m if m < -slack => Verdict::Fails,
            m if m < self.tight - slack => Verdict::Tight,
            _ => Verdict::Ok,
        }
    }
}

/// A change that may buy margin.
#[derive(Debug)]
pub struct Lever {
    /// Part of the document: `candidate`, `engine`, `port`, or a part of the train.
    pub part: &'static str,
    /// Field in that part.
    pub field: &'static str,
    /// Smallest step worth making, in the document's own number: SI for quantities.
    pub step: f64,
    /// Most steps tried.
    pub most: f64,
}

/// A rule of the table.
pub struct Rule {
    /// Stable identifier.
    pub id: &'static str,
    /// In words, without the side.
    pub title: &'static str,
    /// The step of the work it belongs to.
    pub place: Place,
    /// How it compares.
    pub sense: Sense,
    /// What it is measured in.
    pub measure: Measure,
    /// Whether each side has its own.
    pub sided: bool,
    /// How have is computed.
    pub formula: &'static str,
    /// Whose rule it is.
    pub school: fn(&Inputs<'_>) -> &'static str,
    /// Need and have; `None` when the rule does not apply.
    pub find: fn(&Inputs<'_>, Side, &Stages) -> Option<Part<Finding>>,
    /// What goes into it; the first is where one goes to change it.
    pub inputs: fn(&Inputs<'_>, Side) -> Vec<InputUsed>,
    /// Advice is tight at worst, never a failure.
    pub advice: bool,
    /// Changes that may buy margin.
    pub levers: &'static [Lever],
}

impl Rule {
    /// The sides it is held against.
    pub const fn sides(&self) -> &'static [Option<Side>] {
        if self.sided { &[Some(Side::Intake), Some(Side::Exhaust)] } else { &[None] }
    }

    /// Need and have on `side`; the shop's own figures stand above the default.
    pub fn finding(&self, side: Option<Side>, inputs: &Inputs<'_>, stages: &Stages) -> Option<Part<Finding>> {
        let found = (self.find)(inputs, side.unwrap_or(Side::Intake), stages)?;
        Some(match self.shop_limit(side, inputs) {
            Some(own) => found.map(|finding| Finding {
                min: self.bound(own, "at_least").or(finding.min),
                max: self.bound(own, "at_most").or(finding.max),
                ..finding
            }),
            None => found,
        })
    }

    /// The shop's own limit for this rule; one for the side before one for both.
    fn shop_limit<'i, 'a>(&self, side: Option<Side>, inputs: &'i Inputs<'a>) -> Option<&'i Node<'a>> {
        let own = |limit: &&Node<'_>, wanted: Option<&str>| {
            limit.word("limit") == Some(self.id) && limit.word("side") == wanted
        };
        let limits = || inputs.shop_limits.iter();
        let sided = side.and_then(|side| limits().find(|l| own(l, Some(side.key()))));
        sided.or_else(|| limits().find(|l| own(l, None)))
    }

    /// A bound of a shop's own limit in SI; consistency has checked its text.
    fn bound(&self, own: &Node<'_>, key: &str) -> Option<f64> {
        let figure = limit_figure(self.id, own.word(key)?)?;
        Some(if self.measure.dimension().is_none() { figure * self.measure.reported().1 } else { figure })
    }
}

/// The default school of figures nobody quarrels about.
pub fn common(_: &Inputs<'_>) -> &'static str {
    "common practice"
}

/// The line of the margins for `rule` on `side`, without remedies; `None` when it does not apply.
pub fn evaluate(rule: &Rule, side: Option<Side>, inputs: &Inputs<'_>, stages: &Stages) -> Option<LimitReport> {
    let found = rule.finding(side, inputs, stages)?;
    let shop = rule.shop_limit(side, inputs);
    let used = (rule.inputs)(inputs, side.unwrap_or(Side::Intake));
    let edit_field = used.first().map(|i| i.field.clone()).unwrap_or_default();
    let title = match side {
        Some(Side::Intake) => format!("Intake {}", rule.title),
        Some(Side::Exhaust) => format!("Exhaust {}", rule.title),
        None => rule.title.to_owned(),
    };
    let mut line = LimitReport {
        id: rule.id.to_owned(),
        side,
        title,
        sense: rule.sense,
        need: NeedReport { min: None, max: None },
        have: None,
        margin: None,
        unit: rule.measure.reported().0.to_owned(),
        shown: None,
        verdict: Verdict::Unknown,
        school: shop.map_or_else(|| (rule.school)(inputs).to_owned(), |own| shop_reason(own)),
        source: if shop.is_some() { "this shop's own figure" } else { super::figures::SOURCE }.to_owned(),
        place: rule.place,
        formula: rule.formula.to_owned(),
        inputs: used,
        missing: Vec::new(),
        remedies: Vec::new(),
        edit_field,
    };
    match found {
        Ok(finding) => fill(&mut line, rule, &finding),
        Err(Gap { reason, needs }) => {
            if let Some(first) = needs.first() {
                line.edit_field.clone_from(first);
            }
            line.missing = if needs.is_empty() { vec![reason] } else { needs };
        }
    }
    Some(line)
}

fn shop_reason(own: &Node<'_>) -> String {
    format!("this shop: {}", own.word("reason").unwrap_or_default())
}

fn fill(line: &mut LimitReport, rule: &Rule, finding: &Finding) {
    let report = |si: f64| rule.measure.to_report(si);
    line.need = NeedReport { min: finding.min.map(report), max: finding.max.map(report) };
    // A rule that bounds petrol from above bounds diesel from below.
    line.sense = match (finding.min, finding.max) {
        (Some(_), Some(_)) => Sense::Within,
        (Some(_), None) => Sense::AtLeast,
        _ => Sense::AtMost,
    };
    line.have = Some(report(finding.have));
    line.margin = Some(report(finding.margin()));
    line.verdict = match finding.verdict() {
        Verdict::Fails if rule.advice => Verdict::Tight,
        verdict => verdict,
    };
    line.shown = Some(shown(rule.measure, finding));
}

fn shown(measure: Measure, finding: &Finding) -> LimitShown {
    let join = |low: &str, high: &str| format!("{} to {high}", low.split(' ').next().unwrap_or(low));
    let need = match (finding.min.map(|m| measure.shown(m)), finding.max.map(|m| measure.shown(m))) {
        (Some(min), Some(max)) => Shown { inch: join(&min.inch, &max.inch), metric: join(&min.metric, &max.metric) },
        (Some(only), None) | (None, Some(only)) => only,
        (None, None) => Shown { inch: String::new(), metric: String::new() },
    };
    let bounds: Vec<f64> = [finding.min, finding.max].into_iter().flatten().collect();
    // The bar runs so that a single bound stands in its middle and a band fills the middle half.
    let centre = bounds.iter().sum::<f64>() / bounds.len().max(1) as f64;
    let half = match bounds.as_slice() {
        [low, high] => high - low,
        _ => centre.abs().max(4.0 * finding.tight),
    };
    let place = |si: f64| (0.5 + 0.5 * (si - centre) / half).clamp(0.0, 1.0);
    LimitShown {
        need,
        have: measure.shown(finding.have),
        margin: measure.shown_signed(finding.margin()),
        have_at: place(finding.have),
        need_at: bounds.into_iter().map(place).collect(),
    }
}
