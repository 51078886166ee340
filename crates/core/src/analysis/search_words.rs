//! What a search came to, as a report.

use super::choose_words::{because, figures_report, rounded, short_report};
use super::search_chances::{Chances, chances};
use super::search_setup::SearchSetup;
use super::unknowns::measure_next;
use crate::build::Build;
use crate::candidate::{Resolved, Stages};
use crate::choose::{
    Aim, Beside, Bound, Field, Foreseen, Frame, Goal, Guide, Interval, Kept, Kit, Margin, Pick, Priced, Standing,
    Strays, differ, open_kinds, shown_value,
};
use crate::document::Ledger;
use crate::given::{Given, Source};
use crate::limits::{Findings, limits};
use crate::parts::{Drag, Part, fit};
use crate::quantity::{Dimension, Shown, UnitSystem, scale, shown};
use crate::report::{
    BesideDiffer, BindReport, BoundReport, Decided, DecidedShown, Evaluations, FinalistReport, GoalReport,
    ImpossibleReport, KitPart, KitReport, KnownBy, MeasureNext, MoreReport, PriceReport, SearchPoint, SearchReport,
    ShortReport, Verdict,
};
use crate::response::{Columns, Figures};
use crate::service::CountedIn;
use rayon::prelude::*;

/// Doubt of a difference between two cams a region's reach apart, as a share of torque: what moves when the model's own doubtful
/// parts are exchanged one by one (assumed from what was measured of them); nearer cams differ by less, and so does the doubt.
const DOUBT: f64 = 0.0035;
/// Doubt of any difference: the mesh.
const LEAST_DOUBT: f64 = 0.0005;
/// Finalists whose decisions are each reasoned.
const REASONED: usize = 3;
/// What to measure first: more is not done.
const MEASURED: usize = 4;

/// A pick computed in full.
pub(super) struct Full {
    pub pick: Pick,
    pub figures: Figures,
    /// Its curve, as a response has it.
    pub columns: Columns,
    pub findings: Findings,
    pub standing: Standing,
    /// Rpm of control beyond a missed shift.
    pub control: Option<f64>,
    pub interval: Option<Interval>,
    /// What cam and parts cost, as far as prices are given.
    pub money: f64,
    pub candidate: Option<serde_json::Value>,
}

/// What a report is worded from.
pub(super) struct Worded<'a> {
    pub build: &'a Build,
    pub index: usize,
    pub resolved: &'a Resolved,
    pub frame: &'a Frame,
    pub setup: &'a SearchSetup,
    pub fields: &'a [Field],
    pub aim: Aim,
    pub priced: &'a [Priced],
    pub counts: Evaluations,
    /// What was kept of limits.
    pub kept: &'a Kept,
    /// How far gas and trains stray when they are built.
    pub strays: &'a Strays,
    pub stages: &'a Stages,
}

/// What a finalist is among the others.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
enum Rank {
    Stands,
    Beside,
    Found(usize),
}

/// The report of what was found: `found` begins with what stands; `beside` has titles of their own.
pub(super) fn worded(
    words: &Worded<'_>,
    (mut found, beside): (Vec<Full>, Vec<(String, Full)>),
    front: &[(Pick, Option<serde_json::Value>)],
) -> Option<SearchReport> {
    let first = found.first()?;
    let aim = Aim { from: first.figures, ..words.aim };
    let stands = found.remove(0);
    let worst = |full: &Full| full.standing.as_given().broken();
    found.sort_by(|a, b| {
        let order = (worst(a) > 0.0).cmp(&(worst(b) > 0.0));
        order.then_with(|| aim.gain(&b.figures).total_cmp(&aim.gain(&a.figures)))
    });
    // Those that are told are drawn; all of them where too many failures put one behind.
    let is_drawn = |place: usize| words.setup.most_fails.is_some() || place < REASONED;
    let draw = |(place, full): (usize, Full)| {
        let chances = is_drawn(place).then(|| words.chances(&full)).flatten();
        (full, chances)
    };
    let mut drawn: Vec<(Full, Option<Chances>)> = found.into_par_iter().enumerate().map(draw).collect();
    let stood = words.chances(&stands);
    if let Some(most) = words.setup.most_fails {
        // Nobody has to be surer than what stands.
        let allowed = stood.as_ref().map_or(most, |own| most.max(own.by_choice));
        drawn.sort_by_key(|(full, own)| worst(full) > 0.0 || own.as_ref().is_some_and(|own| own.by_choice > allowed));
    }
    let (found, chances): (Vec<Full>, Vec<Option<Chances>>) = drawn.into_iter().unzip();
    let all = || std::iter::once(&stands).chain(&found).chain(beside.iter().map(|(_, full)| full));
    let bounds = bounds(all());
    let of = |rank: Rank, title: String, (full, chance): (&Full, Option<&Chances>)| {
        words.finalist((title, full, chance), (&aim, &stands, found.first()), (&bounds, rank))
    };
    let own = found.iter().zip(&chances).zip(1..);
    let finalists =
        own.map(|((full, chance), place)| of(Rank::Found(place), format!("Found {place}"), (full, chance.as_ref())));
    let alone = |rank: Rank, title: String, full: &Full| of(rank, title, (full, words.chances(full).as_ref()));
    Some(SearchReport {
        aim: aim.words(),
        goals: words.goals().map(|goal| GoalReport { goal, title: goal.title().to_owned() }).collect(),
        open: words.open(),
        kits: words.fields.iter().map(|field| words.kit(&field.kit)).collect(),
        limits: bounds.iter().map(bound_report).collect(),
        finalists: finalists.collect(),
        beside: beside.iter().map(|(title, full)| alone(Rank::Beside, title.clone(), full)).collect(),
        differ: found.first().map_or_else(Vec::new, |best| words.differ(&aim, &beside, best)),
        front: front.iter().map(|(pick, candidate)| words.foreseen(pick, candidate.clone(), &bounds)).collect(),
        prices: words.priced.iter().map(price_report).collect(),
        kept: words.kept.reserves.iter().map(|(bound, reserve)| more_of(*bound, *reserve)).collect(),
        evaluations: words.counts.clone(),
        off_share: words.fields.first().map_or(0.0, |field| field.response.left_out.average_torque),
        impossible: impossible(&stands, &found),
        stands: of(Rank::Stands, "As it stands".to_owned(), (&stands, stood.as_ref())),
    })
}

impl Worded<'_> {
    fn goals(&self) -> impl Iterator<Item = Goal> {
        self.setup.goals.iter().copied()
    }

    fn open(&self) -> Vec<String> {
        let decisions = self.setup.start.decisions(self.frame).into_iter();
        let kinds = open_kinds(self.build, self.setup.start.kinds());
        let decisions = decisions.map(|decision| decision.counting().title.to_owned());
        decisions.chain(kinds.iter().map(|kind| format!("{}s of the shelf", kind.word()))).collect()
    }

    /// Where the best found differs from each candidate beside, and what that does.
    fn differ(&self, aim: &Aim, beside: &[(String, Full)], best: &Full) -> Vec<BesideDiffer> {
        let own = &self.fields[best.pick.field];
        let guide = Guide { response: &own.response, margins: &own.margins, aim: *aim };
        let one = |(title, full): &(String, Full)| BesideDiffer {
            title: title.clone(),
            words: differ(&guide, [&full.pick.choice, &best.pick.choice], [&named(title), "as found"])
                .into_iter()
                .map(|(_, words)| words)
                .collect(),
        };
        beside.iter().map(one).collect()
    }

    fn kit(&self, kit: &Kit) -> KitReport {
        let views = self.build.candidates();
        let id = views.get(self.index).map_or("", |view| view.id.as_str());
        let mut drags: Vec<Drag> = Vec::new();
        for part in &kit.parts {
            let fitted = fit(self.build, id, part, None, UnitSystem::Inch, self.stages);
            for drag in fitted.map_or_else(|_| Vec::new(), |fitted| fitted.drags) {
                if !drags.contains(&drag) {
                    drags.push(drag);
                }
            }
        }
        let part = |part: &Part| KitPart {
            kind: part.kind.word().to_owned(),
            name: part.name.clone(),
            price: part.price.clone(),
            lead_time: part.lead_time.clone(),
        };
        KitReport {
            title: kit.words(),
            parts: kit.parts.iter().map(part).collect(),
            settings: kit.settings.clone(),
            drags,
            money: shown(kit.money, Dimension::Money),
        }
    }

    /// A foreseen pick.
    fn foreseen(&self, pick: &Pick, candidate: Option<serde_json::Value>, bounds: &[Bound]) -> SearchPoint {
        let Foreseen { figures, beside, margins, .. } = &pick.foreseen;
        let margins: Vec<Margin> = margins.iter().map(|own| own.margin).collect();
        let point = self.point(pick, (figures, *beside), KnownBy::Foreseen, (&margins, bounds, pick.holds()));
        SearchPoint { candidate, ..point }
    }

    fn point(
        &self,
        pick: &Pick,
        (figures, beside): (&Figures, Beside),
        by: KnownBy,
        (margins, bounds, holds): (&[Margin], &[Bound], bool),
    ) -> SearchPoint {
        let decisions = self.setup.start.decisions(self.frame);
        let values: Vec<Decided> = decisions
            .iter()
            .filter_map(|decision| Some(Decided { decision: *decision, value: pick.choice.get(*decision)? }))
            .collect();
        let left = |bound: &Bound| {
            let own = margins.iter().find(|margin| margin.bound == *bound)?;
            Some(bound.rule.measure.to_report(own.left))
        };
        let shown = |own: &Decided| DecidedShown {
            title: own.decision.counting().title.to_owned(),
            value: shown_value(own.decision, own.value),
        };
        SearchPoint {
            kit: pick.field,
            by,
            decisions: values.iter().map(shown).collect(),
            choice: values,
            average_torque_nm: figures.average_torque,
            low_torque_nm: figures.thirds[0],
            power_wanted_kw: figures.power_wanted * 1e-3,
            peak_power_kw: figures.peak_power * 1e-3,
            control_rpm: beside.control,
            interval: beside.interval,
            money_usd: beside.money,
            left: bounds.iter().map(left).collect(),
            holds,
            candidate: None,
        }
    }

    fn finalist(
        &self,
        (title, full, chance): (String, &Full, Option<&Chances>),
        (aim, stands, best): (&Aim, &Full, Option<&Full>),
        (bounds, rank): (&[Bound], Rank),
    ) -> FinalistReport {
        let field = &self.fields[full.pick.field];
        let beside = self.beside(full);
        let as_given = full.standing.as_given();
        let holds = as_given.broken() <= 0.0;
        let point =
            self.point(&full.pick, (&full.figures, beside), KnownBy::Full, (&full.standing.margins, bounds, holds));
        let counted_in = CountedIn::of(self.resolved.given.purpose.used_for).word();
        let goals = self.goals().map(|goal| {
            let figure = goal.figure(&full.figures, &beside);
            figure.map_or_else(|| Shown::plain("not known"), |figure| goal.shown(figure, counted_in))
        });
        let reasoned = matches!(rank, Rank::Found(place) if place <= REASONED);
        let guide = Guide { response: &field.response, margins: &field.margins, aim: *aim };
        let foreseen = |own: &Full| {
            let response = &self.fields[own.pick.field].response;
            response.figures(&own.pick.choice).average_torque / own.figures.average_torque
        };
        FinalistReport {
            fails_share: chance.map(|own| own.fails),
            fails_by_choice_share: chance.map(|own| own.by_choice),
            fails_most: chance.and_then(|own| own.most.clone()),
            sure_built: chance.filter(|_| rank != Rank::Stands).map(|own| {
                // Two cams stray by themselves; what engines share is no difference.
                self.sure(aim, (full, stands), own.torque * std::f64::consts::SQRT_2) * (1.0 - own.fails)
            }),
            title,
            gain: rounded(aim.gain(&full.figures)),
            sure: (rank != Rank::Stands).then(|| self.sure(aim, (full, stands), 0.0)),
            sure_best_is_better: best.filter(|_| rank != Rank::Found(1)).map(|best| self.sure(aim, (best, full), 0.0)),
            binds: binds(full, self.priced),
            because: if reasoned { because(&guide, &full.pick.choice) } else { Vec::new() },
            measure_first: self.measure_first(full, chance),
            off_share: best.filter(|_| rank != Rank::Stands).map(|best| foreseen(full) / foreseen(best) - 1.0),
            interval: full.interval.map(|own| interval_words(&own)),
            broken: shorts(as_given.fails(), stands),
            goals: goals.collect(),
            candidate: full.candidate.clone(),
            figures: figures_report(&full.figures),
            point,
        }
    }

    fn beside(&self, full: &Full) -> Beside {
        Beside { control: full.control, interval: full.interval.map(|own| own.count), money: full.money }
    }

    /// How sure it is that `a` is better than `b` by the aim: what the difference is against its doubt and what both stray by when
    /// they are made, taken as normal.
    fn sure(&self, aim: &Aim, (a, b): (&Full, &Full), strays: f64) -> f64 {
        let response = &self.fields[0].response;
        let place = |full: &Full| response.place(&full.pick.choice);
        let apart = place(a).iter().zip(place(b)).map(|(a, b)| (a - b).powi(2)).sum::<f64>();
        let apart = (apart / response.axes.len().max(1) as f64).sqrt().min(1.0);
        let doubt = LEAST_DOUBT.hypot(DOUBT * apart).hypot(strays);
        let difference = aim.gain(&a.figures) - aim.gain(&b.figures);
        0.5 * (1.0 + libm::erf(difference / (doubt * std::f64::consts::SQRT_2)))
    }

    /// A finalist under the tolerances.
    fn chances(&self, full: &Full) -> Option<Chances> {
        let of = (&full.findings, &full.pick.choice);
        let by = (&self.fields[full.pick.field], self.strays, self.kept.moved.as_slice());
        chances((&self.built(full)?, self.index), of, by, self.stages)
    }

    /// The document with a finalist in the place of what stands.
    fn built(&self, full: &Full) -> Option<Build> {
        let kit = &self.fields[full.pick.field].kit.build;
        full.candidate.as_ref().map_or_else(|| Some(kit.clone()), |own| kit.with_candidate(self.index, own).ok())
    }

    /// What to measure before ordering: unknown sizes behind what binds or breaks, then what would change the choice most often.
    fn measure_first(&self, full: &Full, chance: Option<&Chances>) -> Vec<MeasureNext> {
        let Some(build) = self.built(full) else { return Vec::new() };
        let views = build.candidates();
        let ledger = Ledger::default();
        let Some(view) = views.get(self.index) else { return Vec::new() };
        let source = Source::new(view, &ledger);
        let resolved = Resolved::new(Given::read(&source), self.stages);
        let judgement = limits(&resolved, &full.findings, self.stages);
        let mut lines = judgement.lines(&resolved, &full.findings, self.stages, &source);
        lines.retain(|line| matches!(line.verdict, Verdict::Tight | Verdict::Fails | Verdict::Unknown));
        let (unknown, assumed): (Vec<_>, Vec<_>) =
            measure_next(&lines).into_iter().partition(|next| next.value.is_empty());
        let drawn = chance.map_or_else(Vec::new, |own| own.measure.clone());
        let is_new = |next: &MeasureNext| !drawn.iter().any(|own| own.field == next.field);
        let assumed: Vec<MeasureNext> = assumed.into_iter().filter(is_new).collect();
        unknown.into_iter().chain(drawn).chain(assumed).take(MEASURED).collect()
    }
}

/// A title as it stands in a sentence.
fn named(title: &str) -> String {
    if title.starts_with("By ") { title.to_lowercase() } else { format!("in \u{201c}{title}\u{201d}") }
}

/// Limits that points name what is left of: those that are known of any candidate in full.
fn bounds<'a>(all: impl Iterator<Item = &'a Full>) -> Vec<Bound> {
    let mut bounds: Vec<Bound> = Vec::new();
    for margin in all.flat_map(|full| &full.standing.margins) {
        if !margin.is_advice && !bounds.contains(&margin.bound) {
            bounds.push(margin.bound);
        }
    }
    bounds
}

/// Limits with less left than makes them tight, each with its price.
fn binds(full: &Full, priced: &[Priced]) -> Vec<BindReport> {
    let near = full.standing.margins.iter().filter(|own| !own.is_advice && (0.0..own.scale).contains(&own.left));
    let report = |own: &Margin| BindReport {
        limit: own.bound.rule.id.to_owned(),
        side: own.bound.side,
        title: own.bound.title(),
        left: own.bound.rule.measure.shown_signed(own.left),
        price_per_unit: priced.iter().find(|priced| priced.is_of(own.bound)).map(|priced| priced.average_torque),
    };
    near.map(report).collect()
}

fn bound_report(bound: &Bound) -> BoundReport {
    BoundReport {
        id: bound.rule.id.to_owned(),
        side: bound.side,
        title: bound.title(),
        unit: bound.rule.measure.reported().0.to_owned(),
    }
}

fn more_of(bound: Bound, by: f64) -> MoreReport {
    MoreReport {
        limit: bound.rule.id.to_owned(),
        side: bound.side,
        title: bound.title(),
        by: bound.rule.measure.shown(by),
    }
}

fn price_report(priced: &Priced) -> PriceReport {
    let words = |system: UnitSystem| {
        let each = [(Dimension::Torque, priced.average_torque), (Dimension::Power, priced.power_wanted)];
        let one = |(dimension, si): (Dimension, f64)| {
            let scale = scale(dimension, system);
            format!("{:+.2} {}", si / scale.factor, scale.unit).replace('-', "\u{2212}")
        };
        each.map(one).join(", ")
    };
    let buys = Shown { inch: words(UnitSystem::Inch), metric: words(UnitSystem::Metric) };
    PriceReport {
        limits: priced.more.iter().map(|(bound, by)| more_of(*bound, *by)).collect(),
        average_torque_nm: priced.average_torque,
        power_wanted_kw: priced.power_wanted * 1e-3,
        buys,
    }
}

/// What cannot be met: nothing found meets every limit.
fn impossible(stands: &Full, found: &[Full]) -> Option<ImpossibleReport> {
    let all = || std::iter::once(stands).chain(found);
    if all().any(|full| full.standing.as_given().broken() <= 0.0) {
        return None;
    }
    let nearest = all().min_by(|a, b| a.standing.broken().total_cmp(&b.standing.broken()))?;
    let standing = nearest.standing.as_given();
    let fails = standing.fails();
    let (worst, others) = fails.split_first()?;
    let measure = worst.bound.rule.measure;
    Some(ImpossibleReport {
        limit: worst.bound.rule.id.to_owned(),
        side: worst.bound.side,
        title: worst.bound.title(),
        short_by: measure.shown(-worst.left),
        others: shorts(others.to_vec(), stands),
        nearest: nearest.candidate.clone(),
    })
}

/// What is left of limits beside how the candidate stands.
fn shorts(margins: Vec<&Margin>, stands: &Full) -> Vec<ShortReport> {
    margins.into_iter().map(|margin| short_report(margin, Some(&stands.standing))).collect()
}

/// An interval in words.
fn interval_words(own: &Interval) -> String {
    let count = Goal::Life.shown(own.count, own.counted_in.word()).inch;
    let stress =
        own.stress.map_or_else(String::new, |share| format!(", wire at {:.0} % of its strength", 100.0 * share));
    format!("about {count}, set by the {}{stress}", own.side.key())
}
