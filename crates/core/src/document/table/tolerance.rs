//! Entries of `tolerances`: how far a field may be off.

use super::super::field::{Field, Kind, Object, plain};
use crate::words::{SharedCause, SpreadShape, Word};

static ONE_TOLERANCE: Kind = Kind::Object(&TOLERANCE);

/// The list of them.
pub const TOLERANCES: Kind = Kind::List { of: &ONE_TOLERANCE, min: 0, max: 400 };

/// How far one field may be off, where it is not what its source usually is.
pub static TOLERANCE: Object =
    Object { name: "tolerance", doc: "how far one field may be off", sided: false, fields: TOLERANCE_FIELDS };

const TOLERANCE_FIELDS: &[Field] = &[
    plain("id", "Id", Kind::Text(40), "Stable identifier; the field itself when absent."),
    plain(
        "field",
        "Field",
        Kind::Text(160),
        "Path of the field; a candidate by its identifier or its place: candidates[a].train.spring.installed_height.",
    )
    .required(),
    plain(
        "plus_minus",
        "Plus-minus",
        Kind::Text(40),
        "With the field's unit: half the width that holds 95 of 100 of a normal spread, all of another.",
    )
    .required(),
    plain("shape", "Shape", Kind::Choice(SpreadShape::WORDS), "How it spreads within.").or("normal"),
    plain(
        "shared",
        "Shared by",
        Kind::Choice(SharedCause::WORDS),
        "Who has the same deviation: each cylinder its own, a bank, or the whole engine; by the kind of field when absent.",
    ),
    plain("note", "Note", Kind::Text(400), "Where it is from."),
];
