//! The report for an owner: gathered from what every other page tells, so that paper and screen say the same.

use super::analyze::{PartName, Request, analyze};
use super::curve::{CurveJob, kept_curve};
use super::dyno::pulls_of;
use super::history::{Revision, history_of};
use super::order_card::order_card;
use super::service_wear::WearOf;
use super::servicing::service_of;
use crate::build::Build;
use crate::candidate::breathing::Effort;
use crate::candidate::{Resolved, Stages};
use crate::document::{CandidateView, Fault, FormField, candidate_or_first, form_fields};
use crate::quantity::{INCH, Shown, Speed};
use crate::report::{
    Believed, BreathingReport, CandidateReport, LimitReport, OrderCard, OrderFact, OwnerReport, OwnerTorque,
    PullsReport, ServiceReport, TorqueCurve, Verdict,
};
use crate::table::held;
use crate::work::{Halted, Job, Watch};
use std::sync::Arc;

/// Fields that say what was asked of an engine and what it is, in the order they are told.
const ABOUT: &[&str] = &[
    "use",
    "target.band_from",
    "target.band_to",
    "target.peak_power_at",
    "target.shift_at",
    "target.idle_at",
    "engine.layout",
    "engine.bore",
    "engine.stroke",
    "engine.rod_length",
    "engine.combustion",
    "engine.fuel",
    "engine.head_material",
];

const CAUTIONS: &[&str] = &[
    "A planning aid of the shop that built it: the makers' instructions, and what a machinist measures, stand above it.",
    "What is predicted is a model's; what was measured holds for the day, the air and the dyno it was measured on.",
    "Rules for noise, emissions and use on roads, water or a track are those of the place: ask there before it runs.",
];

/// What surrounds a build when its report is made.
#[derive(Debug, Clone, Copy)]
pub struct Around<'a> {
    /// The day it is, as 2026-06-01.
    pub today: Option<&'a str>,
    /// Its saved revisions, the earliest first.
    pub revisions: &'a [Revision],
    /// Wear of the shop's other builds.
    pub like: &'a [WearOf],
}

/// The report of the candidate `asked`; without one of what the log has in the engine, else of the first. Torque is what was computed
/// of it in full, else a draft: a second or two.
///
/// # Errors
/// There is no such candidate, a day that is none, or a log that names a candidate that is not there.
pub fn owner_of(
    build: &Build,
    asked: Option<&str>,
    around: &Around<'_>,
    stages: &Arc<Stages>,
) -> Result<OwnerReport, Fault> {
    let views = build.candidates();
    let service = service_of(build, (around.today, around.like), stages)?;
    let view = candidate_or_first(&views, asked.or(service.in_engine.as_deref()))?;
    let id = view.id.as_str();
    let asked = Request::of(Some(id.to_owned()), vec![PartName::Strip, PartName::Limits]);
    let mut analysis = analyze(build, &asked, stages)?;
    let candidate = analysis.candidates.swap_remove(0);
    let card = order_card(build, id, stages)?;
    let pulls = pulls_of(build, None)?;
    let torque = torque(build, view, &pulls, stages)?;
    let mut margins = candidate.limits.clone();
    margins.sort_by_key(|own| std::cmp::Reverse(own.verdict.rank()));
    let other = views.iter().find(|own| service.in_engine.as_ref() == Some(&own.id) && own.id != id);
    let of_other = other.map(|other| {
        Shown::plain(format!("The log has {} in the engine: this is a report of {}.", other.name, view.name))
    });
    Ok(OwnerReport {
        name: build.name().to_owned(),
        candidate: view.name.clone(),
        day: around.today.unwrap_or_default().to_owned(),
        says: of_other.into_iter().chain(says(&margins, &torque, &service)).collect(),
        about: about(build, view, &candidate),
        strip: candidate.strip.done().cloned(),
        cautions: cautions(&card, &service),
        history: history_of(build, around.revisions, stages)?,
        card,
        torque,
        margins,
        service,
    })
}

fn says(margins: &[LimitReport], torque: &OwnerTorque, service: &ServiceReport) -> Vec<Shown> {
    let named = |verdict: Verdict| {
        let of = margins.iter().filter(|own| own.verdict == verdict);
        let mut titles: Vec<String> = of.map(|own| own.title.clone()).collect();
        titles.dedup();
        titles
    };
    let met = margins.iter().filter(|own| matches!(own.verdict, Verdict::Ok | Verdict::Tight)).count();
    let mut margin = format!("{met} of {} limits are met", margins.len());
    for (verdict, word) in [
        (Verdict::Fails, "not met"),
        (Verdict::Unknown, "not known"),
        (Verdict::Advice, "not as advised"),
        (Verdict::Tight, "met with little left"),
    ] {
        let titles = named(verdict);
        if !titles.is_empty() {
            margin += &format!("; {word}: {}", titles.join(", ").to_lowercase());
        }
    }
    let own =
        [Some(Shown::plain(margin + ".")), torque.pulled.clone(), torque.apart.clone(), Some(service.says.clone())];
    own.into_iter().flatten().collect()
}

/// What was asked and what it is, as far as the document says it.
fn about(build: &Build, view: &CandidateView<'_>, report: &CandidateReport) -> Vec<OrderFact> {
    let fields = form_fields(build.value(), view.index);
    let fact = |own: &FormField| OrderFact {
        label: own.label.clone(),
        value: own.shown.clone().unwrap_or_else(|| Shown::plain(own.text.replace('_', " "))),
        assumed: own.source == "assumed",
    };
    let own = ABOUT.iter().filter_map(|path| fields.iter().find(|own| own.field == *path && !own.text.is_empty()));
    let mut all: Vec<OrderFact> = own.map(fact).collect();
    if let Some(engine) = report.engine.done() {
        let computed = |label: &str, value: Shown| OrderFact { label: label.to_owned(), value, assumed: false };
        let litres = engine.displacement_cc * 1e-3;
        all.push(computed(
            "Displacement",
            Shown { inch: format!("{:.0} cu in", litres * 1e-3 / INCH.powi(3)), metric: format!("{litres:.2} l") },
        ));
        all.extend(
            engine.compression_ratio.map(|ratio| computed("Compression", Shown::plain(format!("{ratio:.2} to 1")))),
        );
    }
    all
}

fn torque(
    build: &Build,
    view: &CandidateView<'_>,
    pulls: &PullsReport,
    stages: &Arc<Stages>,
) -> Result<OwnerTorque, Fault> {
    let computed = computed(build, view, stages)?;
    // With boost a row is of one level: the first that was pulled.
    let at_level = format!("{} at ", view.id);
    let row = pulls.rows.iter().find(|row| row.candidate == view.id || row.candidate.starts_with(&at_level));
    let measured = row.map(|row| TorqueCurve {
        power_kw: powers(&pulls.speed_rpm, &row.torque_nm),
        speed_rpm: pulls.speed_rpm.clone(),
        torque_nm: row.torque_nm.clone(),
        doubt_nm: row.doubt_nm.iter().copied().collect::<Option<Vec<f64>>>().unwrap_or_default(),
    });
    let pulled = row.map(|row| {
        let figure = |of: fn(&Shown) -> &str| {
            let figures = row.figures.iter().map(|own| format!("{} {}", own.title.to_lowercase(), of(&own.mean)));
            let count = if row.n == 1 { "One pull counts".to_owned() } else { format!("{} pulls count", row.n) };
            format!("{count}, in the plan's air: {}.", figures.collect::<Vec<_>>().join(", "))
        };
        Shown { inch: figure(|own| &own.inch), metric: figure(|own| &own.metric) }
    });
    let (predicted, trust) = match computed {
        Ok(report) => (Some(curve_of(&report)), format!("{}; {}", report.mode, report.error_band)),
        Err(reason) => (None, reason),
    };
    let apart = predicted.as_ref().zip(measured.as_ref()).and_then(|(a, b)| apart(a, b));
    let mine = |a: &str, b: &str| a == view.id || b == view.id;
    let believed = pulls.differences.iter().filter(|own| own.believed != Believed::NotShown && mine(&own.a, &own.b));
    let named = |own: &crate::report::DifferenceReport| {
        let words = |text: &str| format!("{}, {}: {text}, {}", own.name, own.title.to_lowercase(), own.certain);
        Shown { inch: words(&own.shown.inch), metric: words(&own.shown.metric) }
    };
    let against = pulls.rows.iter().find(|row| Some(&row.candidate) == pulls.baseline.as_ref());
    let against = against.map(|row| row.name.clone()).unwrap_or_default();
    Ok(OwnerTorque { predicted, trust, measured, pulled, apart, against, believed: believed.map(named).collect() })
}

/// The curve that was computed in full, else a draft; or why there is none.
fn computed(
    build: &Build,
    view: &CandidateView<'_>,
    stages: &Arc<Stages>,
) -> Result<Result<BreathingReport, String>, Fault> {
    if let Some((_, kept)) = kept_curve(&Resolved::of(view, stages), stages) {
        return Ok(Ok(kept.report.clone()));
    }
    let draft = |effort| CurveJob::new(build, Some(&view.id), (effort, None), Arc::clone(stages));
    let job = match draft(Effort::Draft)? {
        Ok(job) => Ok(job),
        Err(_) => draft(Effort::Fast)?,
    };
    let ran = job.and_then(|job| job.run(&Watch::nobody()));
    Ok(ran.map(|curve| curve.report.clone()).map_err(|halted| match halted {
        Halted::Stopped => "stopped".to_owned(),
        Halted::Lacks { reason, .. } => reason,
    }))
}

/// kW at speeds in rpm.
fn powers(speeds: &[f64], torques: &[f64]) -> Vec<f64> {
    let power = |(rpm, torque): (&f64, &f64)| torque * Speed::rpm(*rpm).si() * 1e-3;
    speeds.iter().zip(torques).map(power).collect()
}

fn curve_of(report: &BreathingReport) -> TorqueCurve {
    let doubts = report.torque_nm.iter().zip(&report.error_share);
    TorqueCurve {
        speed_rpm: report.speed_rpm.clone(),
        torque_nm: report.torque_nm.clone(),
        power_kw: report.power_kw.clone(),
        doubt_nm: doubts.map(|(torque, share)| torque * share).collect(),
    }
}

/// How far measured lies from predicted, over the speeds that both have.
fn apart(predicted: &TorqueCurve, measured: &TorqueCurve) -> Option<Shown> {
    let points: Vec<(f64, f64)> =
        predicted.speed_rpm.iter().copied().zip(predicted.torque_nm.iter().copied()).collect();
    let (first, last) = (points.first()?, points.last()?);
    let both = measured.speed_rpm.iter().zip(&measured.torque_nm);
    let off: Vec<f64> = both
        .filter(|(rpm, _)| (first.0..=last.0).contains(*rpm))
        .map(|(rpm, torque)| torque / held(&points, *rpm) - 1.0)
        .collect();
    if off.is_empty() {
        return None;
    }
    let mean = off.iter().sum::<f64>() / off.len() as f64;
    let most = off.iter().copied().fold(0.0, |most: f64, own| if own.abs() > most.abs() { own } else { most });
    Some(Shown::plain(format!(
        "Measured less predicted torque: {:+.1} % on the mean, {:+.1} % at most.",
        100.0 * mean,
        100.0 * most
    )))
}

fn cautions(card: &OrderCard, service: &ServiceReport) -> Vec<String> {
    let own = CAUTIONS.iter().map(|own| (*own).to_owned());
    let mut all: Vec<String> = Vec::new();
    for caution in card.cautions.iter().cloned().chain(service.cautions.iter().cloned()).chain(own) {
        if !all.contains(&caution) {
            all.push(caution);
        }
    }
    all
}
