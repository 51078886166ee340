//! The one table of fields: names, ranges, defaults and meanings of the build document.
//!
//! Ranges are wide: they keep out slips of the decimal point and wrong units, not unusual engines.
//! Defaults are common practice without a source unless a row says otherwise, and every one that
//! is used is listed under `assumed` in the analysis.

mod bench;
mod cam;
mod dyno;
mod engine;
mod growth;
mod limits;
mod motion;
mod part;
mod plan;
mod ports;
mod service;
mod tolerance;
mod train;
mod upper_train;

pub use bench::SESSION;
use bench::SESSIONS;
use bench::SIGNED;
pub use cam::{CAM, CLAY, LOBE};
use dyno::PULLS;
pub use dyno::{CALIBRATION, DYNO_TEST, MOST_POINTS, PULL};
pub use engine::ENGINE;
pub use growth::GROWTH;
pub use limits::{LIMIT_IDS, limit_dimension};
use motion::TRACES;
pub use motion::{MOST_OF_TRACE, TRAIN_FIT};
use part::BOUGHT;
pub use part::SHELF_VALVE;
pub use plan::TARGET;
pub use ports::{EXHAUST_PORT, INTAKE_PORT};
use service::SERVICE;
pub use service::{READINGS, SERVICE_ENTRY};
use tolerance::TOLERANCES;
pub use train::{LIFTER, PUSHROD, TRAIN};
pub use upper_train::{RETAINER, ROCKER, SPRING};

use super::field::{Field, Kind, Object, plain};
use crate::quantity::parse;
use crate::words::{FamilyKind, Use, Word};

/// The format name every document carries.
pub const FORMAT: &str = "upper-lobe.build";
/// The newest version of the format this core reads and writes.
pub const VERSION: i64 = 1;

/// The whole document.
pub static BUILD: Object =
    Object { name: "build", doc: "a build: target, engine and candidates", sided: false, fields: BUILD_FIELDS };

const BUILD_FIELDS: &[Field] = &[
    plain("format", "Format", Kind::Choice(&[FORMAT]), "Says that this is a build document.").required(),
    plain("version", "Version", Kind::Integer { min: 1, max: VERSION }, "Version of the format.").required(),
    plain("name", "Build", Kind::Text(120), "What the builder calls this build.").required(),
    plain("use", "Use", Kind::Choice(Use::WORDS), "What the engine is for."),
    plain(
        "begun_from",
        "Begun from",
        Kind::Choice(FamilyKind::WORDS),
        "The family of engines whose values were assumed at first.",
    ),
    plain("notes", "Notes", Kind::Text(4000), "Anything worth keeping with the build."),
    plain("target", "Plan", Kind::Object(&TARGET), "What the build is for, in numbers."),
    plain("engine", "Engine", Kind::Object(&ENGINE), "Everything the candidates share."),
    plain(
        "limits",
        "Own limits",
        Kind::List { of: &SHOP_LIMIT_KIND, min: 0, max: 40 },
        "Figures this shop holds to in place of the default limits, each with its reason.",
    ),
    plain(
        "growth",
        "Growth at speed",
        Kind::Object(&GROWTH),
        "What brings piston and valve together in a running engine, term by term.",
    ),
    plain(
        "tolerances",
        "Tolerances",
        TOLERANCES,
        "How far fields may be off, where that is not what their sources usually are.",
    ),
    plain("assembly", "Assembly", SIGNED_LIST, "Lines of the assembly as they were signed, and undone."),
    plain("bought", "Bought", BOUGHT_LIST, "What is bought, what was ordered, and what is here."),
    plain("bench", "Bench", SESSIONS, "What was read at the bench, session by session."),
    plain("pull", "Pull on the dyno", Kind::Object(&PULL), "What a dyno measured of one of the candidates."),
    plain("dyno_test", "Test on the dyno", Kind::Object(&DYNO_TEST), "How candidates are compared on the dyno."),
    plain("pulls", "Pulls", PULLS, "What a dyno measured, pull by pull."),
    plain("service", "Service log", SERVICE, "What was measured, changed and found while it was run, entry by entry."),
    plain("valve_motion", "Measured valve motion", TRACES, "Lift of a valve over the crank at speed, trace by trace."),
    plain(
        "train_fit",
        "Train fitted",
        Kind::Object(&TRAIN_FIT),
        "What measured motion says of the train, for every candidate.",
    ),
    plain("calibration", "Calibration", Kind::Object(&CALIBRATION), "What was learned from it, for every candidate."),
    plain(
        "candidates",
        "Candidates",
        Kind::List { of: &ONE_CANDIDATE, min: 0, max: 64 },
        "The cams and trains that are compared.",
    ),
];

/// A figure for the limit `id` as written: SI, or the plain number (per cent and `:1` may follow it).
pub fn limit_figure(id: &str, text: &str) -> Option<f64> {
    match limit_dimension(id) {
        Some(dimension) => parse(text, dimension).ok(),
        None => {
            let number = text.trim().trim_end_matches('%').trim_end_matches(":1").trim();
            number.parse::<f64>().ok().filter(|figure| figure.is_finite())
        }
    }
}

static SHOP_LIMIT_KIND: Kind = Kind::Object(&SHOP_LIMIT);

/// A shop's own figure for a limit, with its reason.
pub static SHOP_LIMIT: Object = Object {
    name: "shop_limit",
    doc: "a shop's own figure for one limit",
    sided: false,
    fields: &[
        plain("limit", "Limit", Kind::Choice(LIMIT_IDS), "Which limit.").required(),
        plain("side", "Side", Kind::Choice(&["intake", "exhaust"]), "Which valve; both when absent."),
        plain("at_least", "At least", Kind::Text(40), "Least that is needed, with its unit."),
        plain("at_most", "At most", Kind::Text(40), "Most that is allowed, with its unit."),
        plain("reason", "Reason", Kind::Text(400), "Why this shop holds to it.").required(),
    ],
};

static ONE_SIGNED: Kind = Kind::Object(&SIGNED);
const SIGNED_LIST: Kind = Kind::List { of: &ONE_SIGNED, min: 0, max: 2000 };
static ONE_BOUGHT: Kind = Kind::Object(&BOUGHT);
const BOUGHT_LIST: Kind = Kind::List { of: &ONE_BOUGHT, min: 0, max: 200 };
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
        plain("clay", "Clay", Kind::Object(&CLAY), "Clay in the pockets after the engine was turned with this cam."),
        plain("changes", "Changes", Kind::Patch, "What differs in engine or target: a JSON merge patch."),
    ],
};

/// Where a value comes from, as `sources` may say.
pub const SOURCES: &[&str] = &["measured", "card", "assumed"];
