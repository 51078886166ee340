//! The pulls of a document as figures: each in one air at the crank, trimmed, with what it is of.

use crate::build::Build;
use crate::candidate::breathing::{Stated, standard_of};
use crate::document::{CandidateView, Fault, Ledger, Node, Side};
use crate::given::{Given, PullPart, Source};
use crate::pulls::air::Standard;
use crate::pulls::trim::{Left, counted, trim};
use crate::quantity::Speed;
use crate::report::PointIs;
use crate::words::{DynoKind, PullAir, Word};
use rayon::prelude::*;

/// Identifier of the one `pull` of a document, which stands before its list.
pub const FIRST: &str = "pull";

/// A pull as read.
#[derive(Debug, Clone, PartialEq)]
pub struct Pulled {
    /// Identifier.
    pub id: String,
    /// Path in the document.
    pub field: String,
    /// Identifier of its candidate.
    pub candidate: String,
    /// Its name.
    pub name: String,
    /// Boost level, where one is named.
    pub level: Option<String>,
    /// Day, as typed.
    pub day: String,
    /// Which pull of its day, where it says.
    pub drawn: Option<usize>,
    /// Whether it says that it is one of the control.
    pub control: bool,
    /// Whether it was measured at the wheels.
    pub on_rollers: bool,
    /// Why somebody left it out.
    pub left_out: Option<String>,
    /// rpm, and N m in the air asked for, in the order read.
    pub points: Vec<(f64, f64)>,
    /// Slowest and fastest speed somebody wants counted, rpm.
    range: (Option<f64>, Option<f64>),
    /// What becomes of each.
    pub left: Vec<Option<Left>>,
    /// What counts, in rising speed.
    pub counted: Vec<(f64, f64)>,
    /// Torque in that air over torque as written.
    pub factor: f64,
    /// Temperatures it began at, K, and its spark, rad, where they were noted.
    pub began: Began,
}

/// What a pull began with.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Began {
    /// Oil.
    pub oil: Option<f64>,
    /// Coolant.
    pub water: Option<f64>,
    /// Spark.
    pub spark: Option<f64>,
}

impl Pulled {
    fn trim(&mut self) {
        self.left = trim(&self.points, self.range);
        self.counted = counted(&self.points, &self.left);
    }

    /// Slowest and fastest speed that counts, rpm.
    pub fn span(&self) -> Option<(f64, f64)> {
        Some((self.counted.first()?.0, self.counted.last()?.0))
    }

    /// What it is of: candidate and boost level.
    pub fn combination(&self) -> String {
        match &self.level {
            Some(level) => format!("{} at {level}", self.candidate),
            None => self.candidate.clone(),
        }
    }

    /// The same as people call it.
    pub fn called(&self) -> String {
        match &self.level {
            Some(level) => format!("{} at {level}", self.name),
            None => self.name.clone(),
        }
    }
}

/// The air figures are wanted in: the plan's own, or a standard's.
///
/// # Errors
/// A word that is none.
pub fn air_of(word: Option<&str>) -> Result<Option<Standard>, Fault> {
    let refuse = |word: &str| Fault::new("air", word, "one of as_planned, sae_j1349, sae_j607, iso_1585");
    let Some(word) = word else { return Ok(None) };
    match PullAir::from_word(word) {
        Some(PullAir::AsPlanned) => Ok(None),
        // The air of its own day is another for each pull.
        air => air.and_then(standard_of).map(Some).ok_or_else(|| refuse(word)),
    }
}

/// Every pull of a document that has points, the old single one first.
pub fn pulled(build: &Build, air: Option<Standard>) -> Vec<Pulled> {
    let views = build.candidates();
    let ledger = Ledger::default();
    let shared = build.shared();
    let source = Source::new(&shared, &ledger);
    let root = shared.build(&ledger);
    let own = |view: &CandidateView<'_>| Stated::of(&Given::read(&Source::new(view, &ledger)));
    let common = Stated::of(&Given::read(&source));
    let stated: Vec<Stated> = views.iter().map(own).collect();
    let first = build.pull(&ledger);
    let list = root.children("pulls");
    let all = std::iter::once((&first, FIRST.to_owned()))
        .chain(list.iter().enumerate().map(|(place, node)| (node, named(node, place))));
    let mut read: Vec<Pulled> = all
        .filter_map(|(node, id)| {
            let part = PullPart::read(node, Side::Intake);
            let place = match node.word("candidate") {
                Some(id) => views.iter().position(|view| view.id == id),
                None => (!views.is_empty()).then_some(0),
            };
            let stated = place.map_or(&common, |place| &stated[place]);
            let of = place.map(|place| &views[place]);
            read(node, &part, (id, of), stated.into_air(&part, air))
        })
        .collect();
    read.par_iter_mut().for_each(Pulled::trim);
    read
}

/// An entry without an identifier goes by its place.
fn named(node: &Node<'_>, place: usize) -> String {
    node.word("id").map_or_else(|| format!("number {}", place + 1), str::to_owned)
}

fn read(
    node: &Node<'_>,
    part: &PullPart,
    (id, of): (String, Option<&CandidateView<'_>>),
    factor: f64,
) -> Option<Pulled> {
    let points: Vec<(f64, f64)> =
        part.points.as_ref()?.iter().map(|(speed, torque)| (speed.as_rpm(), torque.si() * factor)).collect();
    let said = node.word("candidate").unwrap_or_default();
    let si = |key: &str| node.quantity::<crate::quantity::Temperature>(key).map(|own| own.si());
    Some(Pulled {
        id,
        field: node.path().to_owned(),
        candidate: of.map_or_else(|| said.to_owned(), |view| view.id.clone()),
        name: of.map_or_else(|| said.to_owned(), |view| view.name.clone()),
        level: node.word("level").map(str::to_owned),
        day: node.text("day"),
        drawn: node.number("drawn").map(|own| own as usize),
        control: node.text("control") == "true",
        on_rollers: part.dyno == Some(DynoKind::Chassis),
        left_out: node.word("left_out").map(str::to_owned),
        range: (part.from.map(Speed::as_rpm), part.to.map(Speed::as_rpm)),
        counted: Vec::new(),
        left: Vec::new(),
        points,
        factor,
        began: Began {
            oil: si("oil"),
            water: si("water"),
            spark: node.quantity::<crate::quantity::Angle>("spark").map(|own| own.si()),
        },
    })
}

impl From<Option<Left>> for PointIs {
    fn from(left: Option<Left>) -> Self {
        match left {
            None => Self::Counted,
            Some(Left::RollOn) => Self::RollOn,
            Some(Left::ThrottleClosed) => Self::ThrottleClosed,
            Some(Left::Spike) => Self::Spike,
            Some(Left::Slower) => Self::Slower,
            Some(Left::OutOfRange) => Self::OutOfRange,
        }
    }
}
