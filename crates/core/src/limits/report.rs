//! A judged rule in words: a line of the margins.

use super::findings::Findings;
use super::measure::Measure;
use super::rule::{Case, Finding, Judged, Note, Rule, own_limit};
use crate::candidate::Gap;
use crate::document::{InputUsed, Side};
use crate::given::{Place, Source};
use crate::quantity::Shown;
use crate::report::{LimitReport, LimitShown, Named, NeedReport, Sense, Verdict};

/// The line of the margins for what was judged, without remedies.
pub fn line(judged: &Judged, case: Case<'_>, source: &Source<'_>) -> LimitReport {
    let Judged { rule, side, found } = judged;
    let own = own_limit(rule.id, *side, case.resolved);
    let used = inputs(rule.places(*side), source);
    let edit_field = used.first().map(|i| i.field.clone()).unwrap_or_default();
    let mut line = LimitReport {
        id: rule.id.to_owned(),
        side: *side,
        title: titled(rule.title, *side),
        sense: rule.sense,
        need: NeedReport { min: None, max: None },
        have: None,
        margin: None,
        unit: rule.measure.reported().0.to_owned(),
        shown: None,
        verdict: judged.verdict(),
        school: own.map_or_else(|| (rule.school)(case.resolved).to_owned(), |own| format!("this shop: {}", own.reason)),
        source: if own.is_some() { "this shop's own figure" } else { super::figures::SOURCE }.to_owned(),
        place: rule.place,
        formula: rule.formula.to_owned(),
        computed: rule.gas && case.findings.gas.is_some(),
        estimate: None,
        chance: None,
        note: None,
        inputs: used,
        missing: Vec::new(),
        remedies: Vec::new(),
        edit_field,
    };
    match found {
        Ok(finding) => fill(&mut line, rule, finding),
        Err(gap) => miss(&mut line, gap, source),
    }
    if line.computed {
        line.estimate = estimate(judged, case).filter(|shown| line.shown.as_ref().is_some_and(|s| s.have != *shown));
    }
    line
}

/// What the same rule finds without anything computed; `None` where it has nothing to say then.
fn estimate(judged: &Judged, case: Case<'_>) -> Option<Shown> {
    let blind = judged.rule.judge(judged.side, Case { findings: &Findings::default(), ..case })?;
    blind.found.ok().map(|finding| judged.rule.measure.shown(finding.have))
}

/// A title with its side.
pub fn titled(title: &str, side: Option<Side>) -> String {
    match side {
        Some(Side::Intake) => format!("Intake {title}"),
        Some(Side::Exhaust) => format!("Exhaust {title}"),
        None => title.to_owned(),
    }
}

/// What was used of `places`, in their order, each once: what is given, and defaults that stand for something.
pub fn inputs(places: impl Iterator<Item = Place>, source: &Source<'_>) -> Vec<InputUsed> {
    let mut used: Vec<InputUsed> = Vec::new();
    for place in places {
        let node = source.node(place.of, place.side);
        if !node.stands(place.key) {
            continue;
        }
        let input = node.input(place.key);
        if !used.iter().any(|other| other.field == input.field) {
            used.push(input);
        }
    }
    used
}

fn miss(line: &mut LimitReport, gap: &Gap, source: &Source<'_>) {
    let needs: Vec<Named> = gap.needs.iter().map(|place| Named::at(source.path(*place))).collect();
    if let Some(first) = needs.first() {
        line.edit_field.clone_from(&first.field);
    }
    line.note = (!gap.reason.is_empty()).then(|| Shown::plain(&gap.reason));
    line.missing = needs;
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
    line.shown = Some(limit_shown(rule.measure, finding));
    line.note = finding.note.map(|note| note_of(rule.measure, note));
}

fn note_of(measure: Measure, note: Note) -> Shown {
    let band = |low: f64, high: f64| band(&measure.shown(low), &measure.shown(high));
    let (which, (low, high), why) = match note {
        Note::Text(text) => return Shown::plain(text),
        Note::Below(low, high, why) => ("below", (low, high), why),
        Note::Above(low, high, why) => ("above", (low, high), why),
    };
    let Shown { inch, metric } = band(low, high);
    Shown { inch: format!("{which} the usual {inch}: {why}"), metric: format!("{which} the usual {metric}: {why}") }
}

fn band(low: &Shown, high: &Shown) -> Shown {
    let join = |low: &str, high: &str| format!("{} to {high}", low.split(' ').next().unwrap_or(low));
    Shown { inch: join(&low.inch, &high.inch), metric: join(&low.metric, &high.metric) }
}

/// Need, have and margin as read.
pub fn limit_shown(measure: Measure, finding: &Finding) -> LimitShown {
    let need = match (finding.min.map(|m| measure.shown(m)), finding.max.map(|m| measure.shown(m))) {
        (Some(min), Some(max)) => band(&min, &max),
        (Some(only), None) | (None, Some(only)) => only,
        (None, None) => Shown::plain(""),
    };
    let bounds: Vec<f64> = [finding.min, finding.max].into_iter().flatten().collect();
    // The bar runs so that a single bound stands in its middle and a band fills the middle half.
    let centre = bounds.iter().sum::<f64>() / bounds.len().max(1) as f64;
    let half = match bounds.as_slice() {
        [low, high] if high > low => high - low,
        // One bound, or a shop's two that are one.
        _ => centre.abs().max(4.0 * finding.tight).max(f64::MIN_POSITIVE),
    };
    let place = |si: f64| (0.5 + 0.5 * (si - centre) / half).clamp(0.0, 1.0);
    LimitShown {
        need,
        have: measure.shown(finding.have),
        margin: signed(measure, finding),
        have_at: place(finding.have),
        need_at: bounds.into_iter().map(place).collect(),
    }
}

/// The margin as read; one that rounds to nothing keeps its sign's meaning.
fn signed(measure: Measure, finding: &Finding) -> Shown {
    let margin = finding.margin();
    // A rounding error of a nanometre must not read as a minus beside a verdict that is met.
    let met = !matches!(finding.verdict(), Verdict::Fails | Verdict::Advice);
    measure.shown_signed(if met { margin.max(0.0) } else { margin })
}
