//! What to measure next: unknown and assumed fields, those that settle most first.

use crate::candidate::measured_by;
use crate::document::{Origin, spoken_label};
use crate::report::{LimitReport, MeasureNext, Verdict};
use crate::words::Word;

/// Most entries: a person measures a few things at a time.
const MOST: usize = 12;

/// Weight of a margin that is unknown, near its bound, or met with room.
const fn weight(verdict: Verdict) -> u32 {
    match verdict {
        Verdict::Unknown => 9,
        Verdict::Fails | Verdict::Tight | Verdict::Advice => 3,
        Verdict::Ok => 1,
    }
}

/// Fields that are missing or only assumed, by what they would settle.
pub fn measure_next(limits: &[LimitReport]) -> Vec<MeasureNext> {
    let mut found: Vec<(u32, MeasureNext)> = Vec::new();
    for limit in limits {
        let missing = limit.missing.iter().map(|missing| (&missing.field, ""));
        // What only a running engine shows is not measured next, nor a decision.
        let is_none_to_measure =
            |field: &str| field.starts_with("growth.") || field.starts_with("target.") || field.ends_with("_school");
        let assumed = limit.inputs.iter().filter(|i| i.origin == Origin::Assumed && i.value != "unknown");
        let assumed = assumed.filter(|input| !is_none_to_measure(&input.field));
        let assumed = assumed.map(|input| (&input.field, input.value.as_str()));
        for (field, value) in missing.chain(assumed) {
            let place = found.iter().position(|(_, entry)| entry.field == *field).unwrap_or_else(|| {
                found.push((0, entry(field, value)));
                found.len() - 1
            });
            let (score, entry) = &mut found[place];
            *score += weight(limit.verdict);
            entry.settles.push(limit.title.clone());
        }
    }
    // What is unknown before what is assumed; a stable sort keeps the order of the margins among equals.
    found.sort_by_key(|(score, entry)| (!entry.value.is_empty(), std::cmp::Reverse(*score)));
    found.into_iter().take(MOST).map(|(_, entry)| entry).collect()
}

fn entry(field: &str, value: &str) -> MeasureNext {
    MeasureNext {
        field: field.to_owned(),
        label: spoken_label(field),
        value: value.to_owned(),
        settles: Vec::new(),
        changes_share: None,
        session: measured_by(field).map(|kind| kind.word().to_owned()),
    }
}
