//! What was read against what was expected, with what both may be off by: whether they agree, and which field they contradict.

use super::session_sheet::of_session;
use super::tolerance_words::figure_of;
use crate::build::Build;
use crate::candidate::{Resolved, Stages, session};
use crate::choose::{Toleranced, toleranced};
use crate::document::{Fault, Tolerated, in_a_sentence, spoken_label};
use crate::given::Source;
use crate::quantity::shown;
use crate::report::{ExpectedFigure, ExpectedReport, FigureNumbers, SessionFigure, SessionReport, Suspect};
use crate::tolerance::HOLDS_95;

/// Fields that are told.
const TOLD: usize = 3;
/// A field that explains less than this share of what is off is none that is contradicted.
const EXPLAINS: f64 = 0.5;
/// A field that would be off by this many times what it may be is not the one.
const FAR: f64 = 10.0;
/// Standard deviations that a field is moved by to see what it does.
const AWAY: f64 = 1.0;

/// The session `id` against what the document expects of it.
///
/// The doubt of what is expected is the root of the summed squares of what every field's own doubt makes of it, to first order
/// [JCGM 100, 5.1.2, fields taken as independent]. A suspect is a field that, moved by itself, takes most of the squares of what is
/// off, each over its reading's doubt; those that need to move little for what they may be off by come first (the gain in
/// likelihood at the price of the move, all normal).
///
/// # Errors
/// There is no such session.
pub fn expected_of(build: &Build, id: &str, stages: &Stages) -> Result<ExpectedReport, Fault> {
    of_session(build, id, stages, |resolved, source, is_first, id| {
        let read = session(resolved, source, is_first, id)?;
        let figures: Vec<&SessionFigure> = read.figures.iter().filter(|own| expected(own).is_some()).collect();
        let fields = toleranced(resolved, source);
        let expectations = Expectations { resolved, source, is_first, id, stages };
        let effects: Vec<Effect<'_>> = fields.iter().filter_map(|field| expectations.effect(field, &figures)).collect();
        Some(worded(&figures, &effects, (&read, resolved, source)))
    })
}

/// Reading, expectation and the reading's doubt, SI.
fn expected(figure: &SessionFigure) -> Option<(f64, f64, f64)> {
    let FigureNumbers { read, expected, doubt, .. } = figure.numbers.as_ref()?;
    Some((*read, (*expected)?, (*doubt)?))
}

/// What one standard deviation of a field makes of every figure's expectation, SI.
struct Effect<'a> {
    field: &'a Toleranced,
    moves: Vec<f64>,
}

/// A session whose expectations are asked for with a field moved.
struct Expectations<'a> {
    resolved: &'a Resolved,
    source: &'a Source<'a>,
    is_first: bool,
    id: &'a str,
    stages: &'a Stages,
}

impl Expectations<'_> {
    /// `None` for a field that moves none of them.
    fn effect<'a>(&self, field: &'a Toleranced, figures: &[&SessionFigure]) -> Option<Effect<'a>> {
        let (low, high) = (self.moved(field, -AWAY)?, self.moved(field, AWAY)?);
        let of = |figure: &&SessionFigure| {
            let at = |report: &SessionReport| {
                let own = report.figures.iter().find(|own| own.label == figure.label)?;
                Some(expected(own)?.1)
            };
            at(&high).zip(at(&low)).map_or(0.0, |(high, low)| 0.5 * (high - low) / AWAY)
        };
        let moves: Vec<f64> = figures.iter().map(of).collect();
        moves.iter().any(|by| by.abs() > 1e-12).then_some(Effect { field, moves })
    }

    fn moved(&self, field: &Toleranced, steps: f64) -> Option<SessionReport> {
        let mut given = self.resolved.given.clone();
        given.shift(field.place, steps * field.variable.spread.sd())?;
        session(&Resolved::new(given, self.stages), self.source, self.is_first, self.id)
    }
}

/// What a field would have to be moved by, in its standard deviations, and what that is worth.
struct Move<'a> {
    field: &'a Toleranced,
    steps: f64,
    explains: f64,
    worth: f64,
}

fn worded(
    figures: &[&SessionFigure],
    effects: &[Effect<'_>],
    (read, resolved, source): (&SessionReport, &Resolved, &Source<'_>),
) -> ExpectedReport {
    let doubts: Vec<f64> = (0..figures.len())
        .map(|i| HOLDS_95 * effects.iter().map(|effect| effect.moves[i].powi(2)).sum::<f64>().sqrt())
        .collect();
    let found: Vec<ExpectedFigure> =
        figures.iter().zip(&doubts).filter_map(|(own, doubt)| figure(own, *doubt)).collect();
    let differ = found.iter().filter(|own| !own.agrees).count();
    let stand_out = figures.iter().any(|own| own.stands_out);
    let mut moves: Vec<Move<'_>> = effects.iter().filter_map(|effect| needed(effect, figures)).collect();
    moves.sort_by(|a, b| b.worth.total_cmp(&a.worth));
    let suspects: Vec<Suspect> = moves
        .iter()
        .filter(|own| stand_out && own.explains > EXPLAINS)
        .filter_map(|own| suspect(own, resolved, source))
        .filter(|own| own.times_its_doubt < FAR)
        .take(TOLD)
        .collect();
    let says = says((found.len(), differ), stand_out, &suspects, read);
    ExpectedReport { says, figures: found, suspects }
}

fn figure(own: &SessionFigure, doubt: f64) -> Option<ExpectedFigure> {
    let (read, wanted, reading_doubt) = expected(own)?;
    let dimension = own.numbers.as_ref()?.dimension;
    Some(ExpectedFigure {
        label: own.label.clone(),
        expected: own.expected.clone()?,
        expected_doubt: shown(doubt, dimension),
        reading_doubt: own.doubt.clone()?,
        off: own.off.clone()?,
        agrees: (read - wanted).abs() <= doubt.hypot(reading_doubt),
    })
}

/// The move of one field that explains most, `None` where it explains nothing.
fn needed<'a>(effect: &Effect<'a>, figures: &[&SessionFigure]) -> Option<Move<'a>> {
    let (mut squares, mut cross, mut own) = (0.0, 0.0, 0.0);
    for (figure, by) in figures.iter().zip(&effect.moves) {
        let (read, wanted, doubt) = expected(figure)?;
        let sd = (doubt / HOLDS_95).max(f64::MIN_POSITIVE);
        let (off, by) = ((read - wanted) / sd, by / sd);
        squares += off * off;
        cross += off * by;
        own += by * by;
    }
    let (steps, gone) = (cross / own, cross * cross / own);
    // The most that is left of what is gone once the move's own square is paid for.
    let worth = cross * cross / (own + 1.0);
    (squares > 0.0 && own > 0.0).then(|| Move { field: effect.field, steps, explains: gone / squares, worth })
}

fn suspect(own: &Move<'_>, resolved: &Resolved, source: &Source<'_>) -> Option<Suspect> {
    let place = own.field.place;
    let field = source.path(place);
    let size = resolved.given.number(place)?;
    let spread = &own.field.variable.spread;
    let by = own.steps * spread.sd();
    let written = |si: f64| figure_of(si, Tolerated::of(&field).unwrap_or(Tolerated::Number));
    Some(Suspect {
        label: spoken_label(&field),
        from: written(size),
        to: written(size + by),
        times_its_doubt: (by / spread.half).abs(),
        explains: own.explains,
        field,
    })
}

fn says((all, differ): (usize, usize), stand_out: bool, suspects: &[Suspect], read: &SessionReport) -> String {
    if all == 0 {
        return "Nothing of it is expected by the document: it is read, not compared.".to_owned();
    }
    if !read.questions.is_empty() {
        return "What is in question is not compared.".to_owned();
    }
    let agrees = match (differ, stand_out) {
        (0, false) => return "What was read is as expected, within what the readings may be off by.".to_owned(),
        (0, true) => {
            "What was read lies further off than readings may, but within what the document itself may be off by."
                .to_owned()
        }
        (1, _) => "One figure lies beyond what reading and document may be off by together.".to_owned(),
        _ => format!("{differ} figures lie beyond what reading and document may be off by together."),
    };
    let by = suspects.first().map_or_else(
        || " No single field explains it.".to_owned(),
        |own| {
            let of =
                if own.times_its_doubt > 1.0 { "more than it may be off by" } else { "within what it may be off by" };
            let (to, from) = (&own.to.inch, &own.from.inch);
            format!(" What would explain it: {} of {to} in place of {from}, {of}.", in_a_sentence(&own.label))
        },
    );
    format!("{agrees}{by}")
}
