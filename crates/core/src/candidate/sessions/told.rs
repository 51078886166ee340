//! A session's report as it is put together.

use super::session::Session;
use crate::candidate::report::worded as gap_in_words;
use crate::candidate::resolve::Gap;
use crate::document::Side;
use crate::given::{Of, Place, Source};
use crate::quantity::{Dimension, Shown, UnitSystem, format_finer, shown};
use crate::report::{
    FigureNumbers, LobeFile, Named, NextReading, SessionFigure, SessionReport, SessionVerdict, Suggestion,
};
use crate::words::SessionKind;

/// What a field would take.
pub(super) enum To {
    /// A text.
    Text(String),
    /// The rows of a table.
    Rows(Vec<Vec<String>>),
    /// A measured lobe, as a file of cam degrees and lifts, and how many points it has.
    Lobe(String, usize),
}

/// A field as readings have it, not yet worded.
pub(super) struct Said {
    pub place: Place,
    pub to: To,
    /// Half width that holds 95 of 100, SI, which its tolerance will be.
    pub doubt: Option<(f64, Dimension)>,
    pub why: Shown,
}

impl Said {
    /// A quantity with how far it may be off, both SI.
    pub fn quantity(place: Place, (si, doubt): (f64, f64), dimension: Dimension, why: Shown) -> Self {
        Self { place, to: To::Text(text(si, dimension)), doubt: Some((doubt, dimension)), why }
    }

    /// A table.
    pub fn rows(place: Place, rows: Vec<Vec<String>>, why: Shown) -> Self {
        Self { place, to: To::Rows(rows), doubt: None, why }
    }
}

/// What a session comes to.
pub(super) struct Told {
    pub readings: usize,
    pub figures: Vec<SessionFigure>,
    pub verdict: SessionVerdict,
    pub says: Shown,
    pub questions: Vec<String>,
    pub said: Vec<Said>,
    pub lacks: Option<Gap>,
}

impl Told {
    /// Nothing but a sentence yet.
    pub fn unclear(readings: usize, says: &str) -> Self {
        Self {
            readings,
            figures: Vec::new(),
            verdict: SessionVerdict::Unclear,
            says: Shown::plain(says),
            questions: Vec::new(),
            said: Vec::new(),
            lacks: None,
        }
    }

    /// Agrees where none of its figures stands out, and differs else.
    #[must_use]
    pub fn judged(mut self) -> Self {
        let differs = self.figures.iter().any(|own| own.stands_out);
        self.verdict = if differs { SessionVerdict::Differs } else { SessionVerdict::Agrees };
        self
    }

    /// Differs, whatever its figures say.
    #[must_use]
    pub fn differing(self) -> Self {
        Self { verdict: SessionVerdict::Differs, ..self }
    }

    /// The same where readings of one size differed by more than its tools would: no field is surer than they repeat.
    #[must_use]
    pub fn repeating(mut self, repeats: Option<(f64, Dimension)>) -> Self {
        let Some((within, dimension)) = repeats else { return self };
        self.figures.push(read("Readings repeat within".to_owned(), within, dimension));
        for (doubt, of) in self.said.iter_mut().filter_map(|said| said.doubt.as_mut()) {
            if *of == dimension {
                *doubt = doubt.max(within);
            }
        }
        self
    }

    /// What is missing to judge it.
    pub fn lacking(readings: usize, gap: Gap) -> Self {
        Self { lacks: Some(gap), ..Self::unclear(readings, "") }
    }

    pub fn report(
        self,
        session: &Session<'_>,
        [next, last]: [Option<NextReading>; 2],
        source: &Source<'_>,
    ) -> SessionReport {
        let (says, needs) = match &self.lacks {
            Some(gap) => {
                let (reason, needs) = gap_in_words(gap, source);
                (Shown::plain(reason), needs)
            }
            None => (self.says, Vec::new()),
        };
        let given_up = session.node.cells("left");
        let is_left = |own: &Suggestion| {
            given_up.iter().any(|row| row[0].as_str() == Some(&own.label) && row[1].as_str() == Some(&own.to))
        };
        let all: Vec<Suggestion> = self.said.into_iter().map(|said| suggestion(said, source)).collect();
        let (left, suggests): (Vec<_>, Vec<_>) = all.into_iter().partition(is_left);
        let left = left.into_iter().map(|own| [own.label, own.to]).collect();
        let is_of_one = matches!(session.kind, SessionKind::DegreeIn | SessionKind::LiftCheck | SessionKind::ValveDrop);
        SessionReport {
            id: session.node.text("id"),
            kind: session.node.text("kind"),
            title: title(session.kind).to_owned(),
            cylinder: is_of_one.then_some(session.cylinder),
            side: is_of_one.then_some(session.side),
            readings: self.readings,
            figures: self.figures,
            verdict: if self.questions.is_empty() { self.verdict } else { SessionVerdict::Questioned },
            says,
            suggests,
            left,
            questions: self.questions,
            needs,
            next,
            last,
        }
    }
}

/// What a kind of session is called.
pub(super) const fn title(kind: SessionKind) -> &'static str {
    match kind {
        SessionKind::DegreeIn => "Degree-in",
        SessionKind::LobeMap => "Lobe map",
        SessionKind::LiftCheck => "Lift check",
        SessionKind::Springs => "Springs",
        SessionKind::InstalledHeights => "Installed heights",
        SessionKind::ValveDrop => "Valve drop",
        SessionKind::Compression => "Compression",
        SessionKind::LeakDown => "Leak-down",
        SessionKind::Stems => "Stem heights",
        SessionKind::Decks => "Decks",
        SessionKind::Pushrods => "Pushrods",
        SessionKind::Adjustment => "Preload or lash",
        SessionKind::Clay => "Clay",
        SessionKind::Head => "Head",
        SessionKind::RockerMass => "Rocker mass",
        SessionKind::Volumes => "Burette",
        SessionKind::Flow => "Flow bench",
        SessionKind::CamCard => "Cam card that came",
    }
}

fn suggestion(said: Said, source: &Source<'_>) -> Suggestion {
    let Named { field, label } = Named::at(source.path(said.place));
    let node = source.node(said.place.of, said.place.side);
    let count = |rows: usize| if rows == 1 { "1 row".to_owned() } else { format!("{rows} rows") };
    // Readings are held beside what is computed, and are no part of it that could be off.
    let doubt = said.doubt.filter(|_| !matches!(said.place.of, Of::Readings | Of::Clay));
    let doubt = doubt.map(|(si, dimension)| text(si, dimension));
    let own = Suggestion {
        field,
        label,
        from: String::new(),
        to: String::new(),
        rows: None,
        lobe: None,
        doubt,
        why: said.why,
    };
    match said.to {
        To::Text(to) => Suggestion { from: node.input(said.place.key).value, to, ..own },
        To::Rows(rows) => {
            Suggestion { from: count(node.entries(said.place.key)), to: count(rows.len()), rows: Some(rows), ..own }
        }
        To::Lobe(text, points) => {
            let from = if node.has(said.place.key) { "a measured lobe" } else { "the card's lobe" };
            let lobe = Some(LobeFile { side: said.place.side, text });
            Suggestion { from: from.to_owned(), to: format!("a lobe of {points} points"), lobe, ..own }
        }
    }
}

/// A figure that is only read.
pub(super) fn read(label: String, si: f64, dimension: Dimension) -> SessionFigure {
    let numbers = Some(FigureNumbers { read: si, expected: None, doubt: None, dimension });
    SessionFigure { numbers, ..in_words(label, shown(si, dimension)) }
}

/// The same of what is no plain quantity.
pub(super) fn in_words(label: String, read: Shown) -> SessionFigure {
    SessionFigure { label, read, doubt: None, expected: None, off: None, stands_out: false, numbers: None }
}

/// The one in the middle, the upper of two; `None` of nothing.
pub(super) fn middle_of(values: impl Iterator<Item = f64>) -> Option<f64> {
    let mut sorted: Vec<f64> = values.collect();
    sorted.sort_by(f64::total_cmp);
    sorted.get(sorted.len() / 2).copied()
}

/// Sentences one behind the other, in both systems.
pub(super) fn joined(all: &[Shown], between: &str) -> Shown {
    let join = |of: fn(&Shown) -> &String| all.iter().map(|own| of(own).as_str()).collect::<Vec<_>>().join(between);
    Shown { inch: join(|own| &own.inch), metric: join(|own| &own.metric) }
}

/// A figure beside what was expected; it stands out beyond `doubt`.
pub(super) fn beside(label: String, (si, expected): (f64, f64), doubt: f64, dimension: Dimension) -> SessionFigure {
    SessionFigure {
        label,
        read: shown(si, dimension),
        doubt: Some(shown(doubt, dimension)),
        expected: Some(shown(expected, dimension)),
        off: Some(signed(si - expected, dimension)),
        stands_out: (si - expected).abs() > doubt,
        numbers: Some(FigureNumbers { read: si, expected: Some(expected), doubt: Some(doubt), dimension }),
    }
}

/// Whether a figure rounds to nothing as it is shown.
pub(super) fn is_nought(text: &str) -> bool {
    !text.contains(|c| matches!(c, '1'..='9'))
}

/// With its sign.
pub(super) fn signed(si: f64, dimension: Dimension) -> Shown {
    let sign = if si < 0.0 { '\u{2212}' } else { '+' };
    // What rounds to nothing has no sign.
    let written = |text: &str| if is_nought(text) { text.to_owned() } else { format!("{sign}{text}") };
    let Shown { inch, metric } = shown(si.abs(), dimension);
    Shown { inch: written(&inch), metric: written(&metric) }
}

/// The text of a field in inches and the like.
pub(super) fn text(si: f64, dimension: Dimension) -> String {
    format_finer(si, dimension, UnitSystem::Inch)
}

/// A sentence about a quantity, in both systems.
pub(super) fn sentence(si: f64, dimension: Dimension, words: impl Fn(&str) -> String) -> Shown {
    shown(si, dimension).said(words)
}

/// What a valve is called.
pub(super) fn valve(cylinder: usize, side: Side) -> String {
    format!("Cylinder {cylinder} {}", side.key())
}
