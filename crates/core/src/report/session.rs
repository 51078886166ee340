//! What the sessions at the bench come to.

use super::block::Named;
use crate::document::Side;
use crate::quantity::{Dimension, Shown};
use serde::Serialize;

/// Readings against what was expected.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum SessionVerdict {
    /// Within the doubt of both.
    Agrees,
    /// Beyond it.
    Differs,
    /// Readings that cannot be as they are: look again before they are believed.
    Questioned,
    /// Not enough was read, or not enough is known.
    Unclear,
}

/// A tool, and where it sits.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Gauge {
    /// Degree wheel on the crank, dial on the lifter.
    WheelAndLifter,
    /// Degree wheel on the crank, dial on the retainer.
    WheelAndValve,
    /// Caliper over a lobe.
    CaliperOnLobe,
    /// Degree wheel on the core in its fixture, dial on the lobe.
    DialOnLobe,
    /// Height micrometer in place of the spring.
    HeightMicrometer,
    /// Spring tester.
    SpringTester,
    /// Dial on the retainer.
    DialOnValve,
    /// The same over a light spring, the valve pushed to the piston.
    DropToPiston,
    /// A gauge in the plug hole.
    PlugHole,
    /// Stem height gauge on the spring's seat.
    StemGauge,
    /// Bridge with a dial over the bore.
    DeckBridge,
    /// Caliper over a pushrod between balls.
    CaliperOnPushrod,
    /// Adjustable pushrod in place.
    CheckingPushrod,
    /// Feeler between tip and stem, or turns of an adjuster.
    Feeler,
    /// Clay on the piston.
    Clay,
    /// Dial that turns about the guide.
    DialOnSeat,
    /// Scale under one side of a rocker in its stand.
    Scale,
    /// Burette over a plate.
    Burette,
    /// Flow bench.
    FlowBench,
    /// The maker's card.
    MakersCard,
}

impl Gauge {
    /// In words.
    pub const fn words(self) -> &'static str {
        match self {
            Self::WheelAndLifter => "dial on the lifter, along its bore",
            Self::WheelAndValve => "dial on the retainer, along the stem",
            Self::CaliperOnLobe => "caliper over the lobe: nose to heel, then across the base",
            Self::DialOnLobe => "dial on the lobe through a follower like its lifter, wheel on the core",
            Self::HeightMicrometer => "height micrometer in place of the spring, locks and retainer fitted",
            Self::SpringTester => "spring tester, guard closed: a compressed spring can injure",
            Self::DialOnValve => "dial on the retainer, along the stem; solid lifter in place of a hydraulic one",
            Self::DropToPiston => "dial on the retainer over a light spring, zero with the valve closed",
            Self::PlugHole => "tester in the plug hole",
            Self::StemGauge => "stem height gauge on the spring's seat, valve closed",
            Self::DeckBridge => "bridge with a dial across the bore, piston at its highest, edge above the pin's end",
            Self::CaliperOnPushrod => "caliper between two balls, less what they add",
            Self::CheckingPushrod => {
                "adjustable pushrod, lifter on the base circle, all play out; look at the pattern on the tip after two turns"
            }
            Self::Feeler => "lifter on the base circle; feeler at the tip, or plunger travel by the adjuster",
            Self::Clay => "oiled clay on the crown, two turns of the crank by hand, cut through its thinnest place",
            Self::DialOnSeat => "dial on a pilot in the guide, turned once round the seat",
            Self::Scale => "pivot held in the stand, one side on the scale, arm level",
            Self::Burette => "burette through a greased plate, no bubble left",
            Self::MakersCard => "the card that came in the cam's box; say whether its figures are at lobe or valve",
            Self::FlowBench => "flow bench, dial on the valve, depression held",
        }
    }
}

report! {
    /// One session.
    pub struct SessionReport {
        /// Its identifier.
        id: String,
        /// What is measured.
        kind: String,
        /// The same in words.
        title: String,
        /// Cylinder, where it is of one.
        cylinder: Option<usize>,
        /// Valve, where it is of one.
        side: Option<Side>,
        /// Readings so far.
        readings: usize,
        /// What they come to.
        figures: Vec<SessionFigure>,
        /// Against what was expected.
        verdict: SessionVerdict,
        /// In a sentence.
        says: Shown,
        /// What to look at again before they are believed.
        questions: Vec<String>,
        /// What the document would say by them.
        suggests: Vec<Suggestion>,
        /// What they would say and somebody left, as field and value.
        left: Vec<[String; 2]>,
        /// Fields that it lacks.
        needs: Vec<Named>,
        /// What to read next; absent where it has what it asks for.
        next: Option<NextReading>,
        /// What was read last, to be read once more or taken back; absent while nothing was read.
        last: Option<NextReading>,
    }

    /// One reading to take.
    pub struct NextReading {
        /// The table of the session it goes into.
        table: String,
        /// Its columns, those that stand already and those that are read.
        cells: Vec<NextCell>,
        /// What it is, in words.
        says: String,
        /// Which tool, for a drawing.
        gauge: Gauge,
        /// The same in words, and where it sits.
        tool: String,
        /// Which of all, from one.
        place: usize,
        /// All.
        of: usize,
        /// Rows that its table has.
        read: usize,
    }

    /// One column of a reading.
    pub struct NextCell {
        /// What it is.
        label: String,
        /// The text that stands already; absent where it is read.
        given: Option<String>,
    }

    /// One figure of a session.
    pub struct SessionFigure {
        /// What it is.
        label: String,
        /// As it was read.
        read: Shown,
        /// As far as it may be off.
        doubt: Option<Shown>,
        /// As it was expected.
        expected: Option<Shown>,
        /// The one less the other.
        off: Option<Shown>,
        /// Whether that is beyond the doubt.
        stands_out: bool,
        /// The same in SI, for whoever compares; absent for what is no plain quantity.
        #[serde(skip)]
        numbers: Option<FigureNumbers>,
    }

    /// A session's figures against what the document expects, each with what it may be off by.
    pub struct ExpectedReport {
        /// In a sentence.
        says: String,
        /// Figures that something is expected of.
        figures: Vec<ExpectedFigure>,
        /// Fields that would bring the document to the readings, the likeliest first; empty where it agrees with them.
        suspects: Vec<Suspect>,
    }

    /// One figure of it.
    pub struct ExpectedFigure {
        /// What it is.
        label: String,
        /// As it was expected.
        expected: Shown,
        /// As far as that may be off, by what every field of the document may be off.
        expected_doubt: Shown,
        /// As far as the reading may be off.
        reading_doubt: Shown,
        /// Reading less what was expected.
        off: Shown,
        /// Whether that lies within both together.
        agrees: bool,
    }

    /// A field that would bring the document to the readings by itself.
    pub struct Suspect {
        /// Path of the field.
        field: String,
        /// What it is called.
        label: String,
        /// As it is.
        from: Shown,
        /// As it would have to be.
        to: Shown,
        /// How many times as much as it may be off by that is.
        times_its_doubt: f64,
        /// Share of the squares of what is off that would be gone.
        explains: f64,
    }

    /// A field as readings have it.
    pub struct Suggestion {
        /// Path of the field.
        field: String,
        /// What it is called.
        label: String,
        /// As it is.
        from: String,
        /// As it would be: a text that the field takes, or how many rows.
        to: String,
        /// The rows of a table, as they would be.
        rows: Option<Vec<Vec<String>>>,
        /// A measured lobe in the place of a card's.
        lobe: Option<LobeFile>,
        /// As far as it may be off, half width that holds 95 of 100: what its tolerance would be.
        doubt: Option<String>,
        /// Why.
        why: Shown,
    }

    /// A measured lobe.
    pub struct LobeFile {
        /// Which lobe.
        side: Side,
        /// Cam degrees and lifts, line by line, as a file of a measured lobe has them.
        text: String,
    }

    /// A session on paper.
    pub struct SessionSheet {
        /// Its identifier.
        id: String,
        /// What is measured.
        title: String,
        /// Day, as it was typed.
        date: String,
        /// Whose hand.
        by: String,
        /// What was noted.
        note: String,
        /// Every tool, and where it sits.
        tools: Vec<String>,
        /// What is read.
        tables: Vec<SheetTable>,
    }

    /// One table on paper.
    pub struct SheetTable {
        /// What it is called.
        title: String,
        /// Its columns.
        columns: Vec<String>,
        /// Its rows.
        rows: Vec<SheetRow>,
    }

    /// One row on paper.
    pub struct SheetRow {
        /// What is read, in words.
        says: String,
        /// Texts; empty where something is to be written.
        cells: Vec<String>,
    }
}

/// One reading as an engine would give it.
#[derive(Debug, Clone, PartialEq)]
pub struct PlayedReading {
    /// What is read, in words.
    pub says: String,
    /// What it is.
    pub dimension: Dimension,
    /// Each cell that is asked for, SI.
    pub si: Vec<f64>,
}

/// A figure in SI units.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct FigureNumbers {
    /// As it was read.
    pub read: f64,
    /// As it was expected.
    pub expected: Option<f64>,
    /// As far as the reading may be off, half width that holds 95 of 100.
    pub doubt: Option<f64>,
    /// What it is.
    pub dimension: Dimension,
}
