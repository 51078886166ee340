//! What there is to choose, as a report: decisions swept, proposals, margins in words.

use crate::choose::{Aim, Bound, Guide, Margin, Predicted, Proposal, Standing, shown_value, why};
use crate::quantity::Dimension;
use crate::report::{
    BecauseReport, BrokenReport, DecisionReport, FiguresReport, ProposalReport, ReserveReport, ShortReport,
};
use crate::response::{Axis, Choice, Decision, Depth, Figures, Response};

/// Limits whose reserves are drawn beside torque, where they apply.
const DRAWN: [&str; 6] =
    ["octane", "trapped_compression", "idle_overlap", "piston_clearance", "limiting_speed", "exhaust_opening"];

/// A whole candidate as somebody proposes it, computed.
pub(super) struct Proposed {
    pub school: &'static str,
    pub title: &'static str,
    pub candidate: Option<serde_json::Value>,
    pub figures: Option<Figures>,
    pub standing: Option<Standing>,
    pub lacks: Option<String>,
}

impl Proposed {
    /// There is none.
    pub const fn refused(school: &'static str, title: &'static str, lacks: String) -> Self {
        Self { school, title, candidate: None, figures: None, standing: None, lacks: Some(lacks) }
    }
}

/// What a response was computed by.
pub(super) fn computed_by(response: &Response) -> String {
    let reach = response.axes.first().map_or(0.0, |axis| axis.reach);
    match response.depth {
        Depth::Screened => format!("screened cams within {reach:.0} deg of this one"),
        Depth::Sampled => format!("screened cams within {reach:.0} deg of this one, a third of them drafted"),
        Depth::Whole => format!("drafted curves of {} cams within {reach:.0} deg of this one", response.points.len()),
    }
}

/// One decision over the region, the others as they stand; `is_early` where whole engines follow.
pub(super) fn decision_report(guide: &Guide<'_>, axis: &Axis, now: &Choice, is_early: bool) -> DecisionReport {
    let decision = axis.decision;
    let sweep = guide.sweep(axis, now);
    let proposal = sweep.proposal();
    let standing = now.get(decision).unwrap_or(axis.middle);
    let here = guide.at(now);
    let scale = scale(decision);
    let share = |of: &dyn Fn(&Figures) -> f64| -> Vec<f64> {
        sweep.stood.iter().map(|stood| rounded(of(&stood.figures) / of(&here.figures) - 1.0)).collect()
    };
    let left_along =
        |bound: Bound| sweep.stood.iter().filter_map(move |stood| Some(stood.predicted(bound)?.margin.left));
    // One cylinder by itself knocks elsewhere than an engine: what hangs on its gas waits for whole engines.
    let is_known = |predicted: &&Predicted| !(is_early && predicted.margin.bound.rule.gas);
    let reserves = here.margins.iter().filter(is_known);
    let reserves = reserves.filter(|predicted| DRAWN.contains(&predicted.margin.bound.rule.id));
    let reserves = reserves.filter(|predicted| {
        // A reserve that this decision does not move is not drawn.
        let (least, most) = left_along(predicted.margin.bound)
            .fold((f64::INFINITY, f64::NEG_INFINITY), |(a, b), left| (a.min(left), b.max(left)));
        most - least > 0.1 * predicted.margin.scale
    });
    let reserves = reserves.map(|predicted| {
        let (bound, measure) = (predicted.margin.bound, predicted.margin.bound.rule.measure);
        let left: Vec<f64> = left_along(bound).collect();
        ReserveReport {
            id: bound.rule.id.to_owned(),
            title: bound.title(),
            left: left.iter().map(|left| measure.to_report(*left)).collect(),
            left_shown: left.iter().map(|left| measure.shown_signed(*left)).collect(),
            off_shown: measure.shown(predicted.off),
        }
    });
    let broken = here.margins.iter().filter(is_known).filter_map(|predicted| {
        let breaks = |place: usize| -> Option<f64> {
            let own = sweep.stood[place].predicted(predicted.margin.bound)?;
            (own.broken() > 0.0).then_some(sweep.values[place])
        };
        let values: Vec<f64> = (0..sweep.values.len()).filter_map(breaks).collect();
        let bound = predicted.margin.bound;
        Some(BrokenReport {
            id: bound.rule.id.to_owned(),
            title: bound.title(),
            from: values.first()? * scale,
            to: values.last()? * scale,
            is_broken_now: predicted.broken() > 0.0,
        })
    });
    DecisionReport {
        decision,
        title: decision.counting().title.to_owned(),
        unit: unit(decision),
        now: standing * scale,
        now_shown: shown_value(decision, standing),
        value: sweep.values.iter().map(|value| value * scale).collect(),
        value_shown: sweep.values.iter().map(|value| shown_value(decision, *value)).collect(),
        average_torque: share(&|figures| figures.average_torque),
        low: share(&|figures| figures.thirds[0]),
        middle: share(&|figures| figures.thirds[1]),
        high: share(&|figures| figures.thirds[2]),
        power_wanted: share(&|figures| figures.power_wanted),
        reserves: reserves.collect(),
        broken: broken.collect(),
        proposed: proposal.value * scale,
        proposed_shown: shown_value(decision, proposal.value),
        range_shown: [shown_value(decision, proposal.range.0), shown_value(decision, proposal.range.1)],
        range: [proposal.range.0 * scale, proposal.range.1 * scale],
        why: why(guide, axis, now, &proposal),
    }
}

/// A hundredth of a per cent is more than anybody knows.
pub(super) fn rounded(share: f64) -> f64 {
    (share * 1e5).round() * 1e-5
}

/// Values as they are reported: degrees, millimetres or plain.
pub(super) fn scale(decision: Decision) -> f64 {
    if decision.counting().dimension == Some(Dimension::Length) { 1e3 } else { 1.0 }
}

fn unit(decision: Decision) -> Option<String> {
    match decision.counting().dimension? {
        Dimension::Length => Some("mm".to_owned()),
        _ => Some("deg".to_owned()),
    }
}

/// Every decision of a choice with its reason, the others as in it.
pub(super) fn because(guide: &Guide<'_>, choice: &Choice) -> Vec<BecauseReport> {
    let report = |axis: &Axis| {
        let sweep = guide.sweep(axis, choice);
        let proposal =
            Proposal { value: choice.get(axis.decision)?, best: None, is_at_the_end: false, ..sweep.proposal() };
        Some(BecauseReport {
            decision: axis.decision.counting().title.to_owned(),
            value: shown_value(axis.decision, proposal.value),
            why: why(guide, axis, choice, &proposal),
            source: "computed of this engine".to_owned(),
        })
    };
    guide.response.axes.iter().filter_map(report).collect()
}

/// Figures as reported.
pub(super) fn figures_report(figures: &Figures) -> FiguresReport {
    FiguresReport {
        average_torque_nm: figures.average_torque,
        thirds_nm: figures.thirds,
        peak_power_kw: figures.peak_power * 1e-3,
        peak_power_rpm: figures.peak_power_rpm,
        power_wanted_kw: figures.power_wanted * 1e-3,
        peak_torque_nm: figures.peak_torque,
        octane_needed: figures.octane,
    }
}

/// What is left of one limit beside how the candidate stands now.
pub(super) fn short_report(margin: &Margin, now: Option<&Standing>) -> ShortReport {
    let now = now.and_then(|now| now.margin(margin.bound));
    ShortReport {
        id: margin.bound.rule.id.to_owned(),
        title: margin.bound.title(),
        left: margin.bound.rule.measure.shown_signed(margin.left),
        is_broken_now: now.is_some_and(|now| now.broken() > 0.0),
    }
}

/// A proposal beside how the candidate stands.
pub(super) fn proposal_report(
    proposed: &Proposed,
    now: &Proposed,
    aim: &Aim,
    because: Vec<BecauseReport>,
) -> ProposalReport {
    let short = |margin: &Margin| short_report(margin, now.standing.as_ref());
    let standing = proposed.standing.as_ref();
    let tight = |margin: &&Margin| !margin.is_advice && margin.left >= 0.0 && margin.left < margin.scale;
    ProposalReport {
        school: proposed.school.to_owned(),
        title: proposed.title.to_owned(),
        candidate: proposed.candidate.clone(),
        because,
        figures: proposed.figures.as_ref().map(figures_report),
        gain: proposed.figures.as_ref().map(|figures| rounded(aim.gain(figures))),
        broken: standing.map_or_else(Vec::new, |standing| standing.fails().into_iter().map(short).collect()),
        tight: standing.map_or_else(Vec::new, |standing| standing.margins.iter().filter(tight).map(short).collect()),
        lacks: proposed.lacks.clone(),
    }
}
