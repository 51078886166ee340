//! "Can these springs stay?": one sentence with its figures, from what the rules found and nothing else; the train in
//! motion decides where it was turned.

use crate::document::in_a_sentence;
use crate::quantity::{Dimension, Length, Shown, shown};
use crate::report::{LimitReport, Sides, SpringReport, SpringsStay, Verdict};

/// Rules that decide it; the rest of a spring's rules are advice.
const DECIDING: [&str; 10] = [
    "coil_bind",
    "limiting_speed",
    "hand_check",
    "seat_load",
    "open_load",
    "seat_reserve",
    "exhaust_opening",
    "wire_stress",
    "retainer_to_seal",
    "retainer_on_spring",
];

/// Whether the springs can stay under this cam; `None` where no rule has anything to say of them.
pub fn springs_stay(limits: &[LimitReport], spring: Option<&Sides<SpringReport>>) -> Option<SpringsStay> {
    let own: Vec<&LimitReport> = limits.iter().filter(|limit| DECIDING.contains(&limit.id.as_str())).collect();
    let worst = own.iter().map(|limit| limit.verdict).max_by_key(|verdict| rank(*verdict))?;
    let of = |verdict: Verdict| own.iter().filter(move |limit| limit.verdict == verdict);
    let says = |say: &dyn Fn(&Shown) -> &str| -> String {
        let figures = figures(limits, spring, say);
        match worst {
            Verdict::Fails => {
                let reasons: Vec<_> = of(Verdict::Fails).map(|limit| short(limit, say)).collect();
                format!("These springs cannot stay: {}. They have {figures}.", reasons.join("; "))
            }
            Verdict::Unknown => {
                let mut needs: Vec<String> = Vec::new();
                for label in
                    of(Verdict::Unknown).flat_map(|limit| &limit.missing).map(|named| in_a_sentence(&named.label))
                {
                    if !needs.contains(&label) {
                        needs.push(label);
                    }
                }
                let needs = if needs.is_empty() { "what the rules ask for".to_owned() } else { needs.join(", ") };
                format!("Whether these springs can stay is not known without {needs}.")
            }
            Verdict::Tight => {
                let tight: Vec<_> = of(Verdict::Tight).map(|limit| short(limit, say)).collect();
                format!("These springs can stay, with little to spare: {}. They have {figures}.", tight.join("; "))
            }
            Verdict::Ok | Verdict::Advice => format!("These springs can stay: {figures}."),
        }
    };
    Some(SpringsStay {
        verdict: worst,
        says: Shown { inch: says(&|shown| &shown.inch), metric: says(&|shown| &shown.metric) },
    })
}

/// The gravest last. A piece of advice decides nothing here, so it stands below what is tight.
const fn rank(verdict: Verdict) -> u8 {
    match verdict {
        Verdict::Fails => 4,
        Verdict::Unknown => 3,
        Verdict::Tight => 2,
        Verdict::Advice => 1,
        Verdict::Ok => 0,
    }
}

/// A margin in a few words: "intake coil-bind clearance .020 in, at least .060 in".
fn short(limit: &LimitReport, say: &dyn Fn(&Shown) -> &str) -> String {
    let title = in_a_sentence(&limit.title);
    let Some(shown) = &limit.shown else { return title };
    let word = match (limit.need.min, limit.need.max) {
        (Some(_), Some(_)) => "within",
        (Some(_), None) => "at least",
        _ => "at most",
    };
    format!("{title} {}, {word} {}", say(&shown.have), say(&shown.need))
}

/// Loads, what bind leaves, and the speed of the rigid check, of the worse side each.
fn figures(limits: &[LimitReport], spring: Option<&Sides<SpringReport>>, say: &dyn Fn(&Shown) -> &str) -> String {
    let mut parts = Vec::new();
    if let Some(Sides { intake, exhaust }) = spring {
        let force = |si: f64| say(&shown(si, Dimension::Force)).to_owned();
        parts.push(format!("{} closed", pair(force(intake.seat_load_n), force(exhaust.seat_load_n))));
        parts.push(format!("{} open", pair(force(intake.open_load_n), force(exhaust.open_load_n))));
        if let (Some(a), Some(b)) = (intake.to_coil_bind_mm, exhaust.to_coil_bind_mm) {
            parts.push(format!("{} to bind", say(&shown(Length::mm(a.min(b)).si(), Dimension::Length))));
        }
    }
    // Where a check itself stands against them its figure has been said.
    let slowest = |id: &str| {
        let met = |limit: &&LimitReport| matches!(limit.verdict, Verdict::Ok | Verdict::Advice);
        let checked = limits.iter().filter(|limit| limit.id == id).filter(met);
        let found = checked.filter_map(|limit| Some((limit.have?, limit))).min_by(|a, b| a.0.total_cmp(&b.0));
        found.and_then(|(_, limit)| limit.shown.as_ref())
    };
    // The train in motion speaks before the estimate.
    if limits.iter().any(|limit| limit.id == "limiting_speed") {
        parts.extend(slowest("limiting_speed").map(|shown| format!("to {} in motion", say(&shown.have))));
    } else {
        parts.extend(slowest("hand_check").map(|shown| format!("to {} by the rigid estimate", say(&shown.have))));
    }
    parts.join(", ")
}

/// Both sides, said once where they read the same.
fn pair(intake: String, exhaust: String) -> String {
    if intake == exhaust { intake } else { format!("{intake} and {exhaust}") }
}
