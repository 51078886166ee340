//! The one table of fields: names, ranges, defaults and meanings of the build document.
//!
//! Ranges are wide: they keep out slips of the decimal point and wrong units, not unusual engines.
//! Defaults are common practice without a source unless a row says otherwise, and every one that
//! is used is listed under `assumed` in the analysis.

mod cam;
mod engine;
mod plan;
mod train;

pub use cam::LOBE;
pub use engine::{ENGINE, EXHAUST_PORT, INTAKE_PORT};
pub use plan::TARGET;
pub use train::TRAIN;

use super::field::{Field, Kind, Object, plain};

/// The format name every document carries.
pub const FORMAT: &str = "upper-lobe.build";
/// The newest version of the format this core reads and writes.
pub const VERSION: i64 = 1;

/// What the engine is for.
const USES: &[&str] = &["street", "tow", "strip", "circuit", "marine", "work"];

/// The whole document.
pub static BUILD: Object =
    Object { name: "build", doc: "a build: target, engine and candidates", sided: false, fields: BUILD_FIELDS };

const BUILD_FIELDS: &[Field] = &[
    plain("format", "Format", Kind::Choice(&[FORMAT]), "Says that this is a build document.").required(),
    plain("version", "Version", Kind::Integer { min: 1, max: VERSION }, "Version of the format.").required(),
    plain("name", "Build", Kind::Text(120), "What the builder calls this build.").required(),
    plain("use", "Use", Kind::Choice(USES), "What the engine is for."),
    plain("notes", "Notes", Kind::Text(4000), "Anything worth keeping with the build."),
    plain("target", "Plan", Kind::Object(&TARGET), "What the build is for, in numbers."),
    plain("engine", "Engine", Kind::Object(&ENGINE), "Everything the candidates share."),
    plain(
        "candidates",
        "Candidates",
        Kind::List { of: &ONE_CANDIDATE, min: 0, max: 64 },
        "The cams and trains that are compared.",
    ),
];

static ONE_CANDIDATE: Kind = Kind::Object(&CANDIDATE);

/// One candidate: a cam with its train.
pub static CANDIDATE: Object = Object {
    name: "candidate",
    doc: "a candidate cam with its train",
    sided: false,
    fields: &[
        plain("id", "Id", Kind::Text(40), "Stable identifier; names may change.").required(),
        plain("name", "Name", Kind::Text(120), "What the builder calls this candidate.").required(),
        plain("cam", "Cam", Kind::Object(&cam::CAM), "Lobes and their phasing."),
        plain("train", "Train", Kind::Object(&TRAIN), "From lifter to valve."),
        plain("changes", "Changes", Kind::Patch, "What differs in engine or target: a JSON merge patch."),
    ],
};

/// Where a value comes from, as `sources` may say.
pub const SOURCES: &[&str] = &["measured", "card", "assumed"];
