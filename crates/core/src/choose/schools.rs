//! What the schools propose, each a whole candidate: by the four events, by the card, and as it stands.

use super::frame::Frame;
use super::guide::{Guide, Proposal, Stood};
use super::standing::Bound;
use crate::begin::{CardCam, card_cam};
use crate::cam::Phasing;
use crate::candidate::{Part, Resolved};
use crate::quantity::{Dimension, Shown, shown};
use crate::response::{Axis, Choice, Decision, Figures};

/// Degrees, the most of an axis' reach, and the share of lift on both sides at which a reason looks.
const LOOK: f64 = 6.0;
const LOOK_SHARE: f64 = 0.75;
const LOOK_LIFT: f64 = 0.05;
/// A change below this is none.
const NOTHING: f64 = 5e-4;

/// The choice that card rules come to, and why.
///
/// # Errors
/// What plan and engine lack for it.
pub fn by_card(frame: &Frame, resolved: &Resolved) -> Part<(Choice, CardCam)> {
    let card = card_cam(resolved)?;
    let events = Phasing::from_card(card.separation, card.centreline).events(card.duration[0], card.duration[1]);
    let choice = frame
        .now()
        .with_events(events)
        .with(Decision::IntakeLift, card.lobe_lift[0])
        .with(Decision::ExhaustLift, card.lobe_lift[1]);
    Ok((choice, card))
}

/// A value as people read it.
pub fn shown_value(decision: Decision, value: f64) -> Shown {
    let Shown { inch, metric } = shown_by(decision, value);
    let reference = match decision {
        Decision::IntakeCloses => " ABDC",
        Decision::ExhaustOpens => " BBDC",
        Decision::IntakeOpens => " BTDC",
        Decision::ExhaustCloses | Decision::IntakeCentreline => " ATDC",
        _ => "",
    };
    Shown { inch: format!("{inch}{reference}"), metric: format!("{metric}{reference}") }
}

/// Why a value is proposed: what going on in both directions gives and takes, and what binds.
pub fn why(guide: &Guide<'_>, axis: &Axis, choice: &Choice, proposal: &Proposal) -> Shown {
    let decision = axis.decision;
    let is_event = decision.counting().dimension == Some(Dimension::Angle);
    let look = if is_event { LOOK.min(LOOK_SHARE * axis.reach) } else { LOOK_LIFT * axis.middle.abs() };
    let at = guide.at(&choice.with(decision, proposal.value));
    let side = |sign: f64, word: &str| -> Option<Shown> {
        let value = proposal.value + sign * look;
        let inside = (value - axis.middle).abs() <= axis.reach * (1.0 + 1e-9);
        let there = guide.at(&choice.with(decision, value));
        let by = shown_by(decision, look);
        let words = apart(&at.figures, &there.figures);
        inside.then(|| Shown {
            inch: format!("{} {word} {words}", by.inch),
            metric: format!("{} {word} {words}", by.metric),
        })
    };
    let (less, more) = words_of_sides(decision);
    let mut parts: Vec<Shown> = [side(-1.0, less), side(1.0, more)].into_iter().flatten().collect();
    let bound = |bound: Option<Bound>, word: &str| {
        let title = bound?.title().to_lowercase();
        Some(Shown::plain(format!("{title} ends the range on the {word} side")))
    };
    parts.extend([bound(proposal.binds[0], less), bound(proposal.binds[1], more)].into_iter().flatten());
    if let Some(best) = proposal.best {
        let best = shown_value(decision, best);
        let sentence = |best: &str| format!("does within .1 % what {best} does, and is easier on everything");
        parts.insert(0, Shown { inch: sentence(&best.inch), metric: sentence(&best.metric) });
    } else if proposal.is_at_the_end {
        parts.push(Shown::plain("the best lies at the end of what was looked at: take it and look again"));
    }
    let join = |of: fn(&Shown) -> &String| parts.iter().map(|part| of(part).as_str()).collect::<Vec<_>>().join("; ");
    Shown { inch: join(|part| &part.inch), metric: join(|part| &part.metric) }
}

/// What is less and what is more of a decision.
const fn words_of_sides(decision: Decision) -> (&'static str, &'static str) {
    match decision {
        Decision::IntakeCloses | Decision::ExhaustCloses => ("earlier", "later"),
        Decision::ExhaustOpens | Decision::IntakeOpens => ("later", "earlier"),
        Decision::Quickness => ("gentler", "quicker"),
        Decision::Runner | Decision::Primary | Decision::IntakeDuration | Decision::ExhaustDuration => {
            ("shorter", "longer")
        }
        Decision::LobeSeparation => ("narrower", "wider"),
        Decision::IntakeCentreline => ("earlier", "later"),
        _ => ("less", "more"),
    }
}

/// A difference of a decision as people read it.
fn shown_by(decision: Decision, by: f64) -> Shown {
    let Some(dimension) = decision.counting().dimension else { return Shown::plain(format!("{by:.2}")) };
    let si = if dimension == Dimension::Angle { by.to_radians() } else { by };
    shown(si, dimension)
}

/// What one curve has that another has not, by thirds of the band: "-1.2 % low, +0.4 % high".
pub fn apart(from: &Figures, to: &Figures) -> String {
    let names = ["low", "in the middle", "high"];
    let parts = names.iter().zip(from.thirds.iter().zip(to.thirds)).filter_map(|(name, (from, to))| {
        let share = to / from - 1.0;
        (share.abs() > NOTHING).then(|| format!("{:+.1} % {name}", 100.0 * share))
    });
    let words: Vec<String> = parts.collect();
    if words.is_empty() { "changes nothing".to_owned() } else { words.join(", ") }
}

/// Where two choices differ and what that does, decision by decision from the first to the second, what moves most first; the
/// names say how each came, as "by the card".
pub fn differ(guide: &Guide<'_>, [first, second]: [&Choice; 2], names: [&str; 2]) -> Vec<(Decision, Shown)> {
    let mut found: Vec<(f64, Decision, Shown)> = Vec::new();
    for decision in Decision::CAM {
        let (Some(one), Some(two)) = (first.get(decision), second.get(decision)) else { continue };
        let by = two - one;
        if by.abs() < 1.5 * decision.counting().step {
            continue;
        }
        let (from, to) = (guide.at(first), guide.at(&first.with(decision, two)));
        let (less, more) = words_of_sides(decision);
        let word = if by > 0.0 { more } else { less };
        let (amount, does) = (shown_by(decision, by.abs()), apart(&from.figures, &to.figures));
        let newly: Vec<String> = breaks(&from, &to);
        let breaks = if newly.is_empty() { String::new() } else { format!("; it breaks {}", newly.join(", ")) };
        let title = decision.counting().title.to_lowercase();
        let sentence = |by: &str| {
            format!("{title} {by} {word} {} than {}: {does} against the cam {}{breaks}", names[1], names[0], names[0])
        };
        let moved = (to.gain - from.gain).abs();
        found.push((moved, decision, Shown { inch: sentence(&amount.inch), metric: sentence(&amount.metric) }));
    }
    found.sort_by(|a, b| b.0.total_cmp(&a.0));
    found.into_iter().map(|(_, decision, words)| (decision, words)).collect()
}

/// Limits that hold at one choice and not at another.
fn breaks(from: &Stood, to: &Stood) -> Vec<String> {
    let held = |bound: Bound| from.fails().all(|margin| margin.bound != bound);
    let newly = to.fails().filter(|margin| held(margin.bound));
    newly.map(|margin| margin.bound.title().to_lowercase()).collect()
}
