//! What a part drags along: work and other parts that go with it, found by what differs from the part before it.

use super::kind::PartKind;
use crate::candidate::Inputs;
use crate::document::{Node, Side};
use crate::quantity::{Dimension, Length, UnitSystem, format_si};
use serde::Serialize;

/// A piece of work, or another part, that goes with one.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Drag {
    /// What to do.
    pub what: String,
    /// Why.
    pub why: String,
}

/// A candidate before and after a part was put into it.
pub(super) struct Change<'a, 'd> {
    pub before: &'a Inputs<'d>,
    pub after: &'a Inputs<'d>,
    pub system: UnitSystem,
}

/// What `kind` drags along on `sides`; what holds for both is said once.
pub(super) fn drags(change: &Change<'_, '_>, kind: PartKind, sides: &[Side]) -> Vec<Drag> {
    let mut found: Vec<Drag> = Vec::new();
    for side in sides {
        let told = match kind {
            PartKind::Cam | PartKind::Lobe => change.cam(*side),
            PartKind::Lifter => change.lifter(*side),
            PartKind::Pushrod => change.pushrod(*side),
            PartKind::Rocker => change.rocker(*side),
            PartKind::Valve => change.valve(*side),
            PartKind::Retainer => change.retainer(),
            PartKind::Spring => change.spring(*side),
        };
        for drag in told {
            if !found.contains(&drag) {
                found.push(drag);
            }
        }
    }
    found
}

fn drag(what: impl Into<String>, why: impl Into<String>) -> Drag {
    Drag { what: what.into(), why: why.into() }
}

impl Change<'_, '_> {
    fn text(&self, si: f64) -> String {
        format_si(si, Dimension::Length, self.system)
    }

    /// How much a length grew; `None` while one of them is not known, or where they are equal.
    fn grown(&self, node: impl Fn(&Inputs<'_>) -> Option<Length>) -> Option<f64> {
        let by = node(self.after)?.si() - node(self.before)?.si();
        (by.abs() > 1e-7).then_some(by)
    }

    fn word(&self, node: impl Fn(&Inputs<'_>) -> Option<String>) -> Option<(String, String)> {
        let (before, after) = (node(self.before)?, node(self.after)?);
        (before != after).then_some((before, after))
    }

    /// A length and which way it goes: ".040 in longer".
    fn by(&self, by: f64, more: &str, less: &str) -> String {
        format!("{} {}", self.text(by.abs()), if by > 0.0 { more } else { less })
    }

    fn longer(&self, by: f64) -> String {
        self.by(by, "longer", "shorter")
    }

    fn higher(&self, by: f64) -> String {
        self.by(by, "higher", "lower")
    }

    fn bigger(&self, by: f64) -> String {
        self.by(by, "larger", "smaller")
    }

    fn cam(&self, side: Side) -> Vec<Drag> {
        let mut found = vec![drag(
            "Degree it in before pushrods are measured",
            "what is ground differs from the card by up to about a degree, and the gear has its own error",
        )];
        let base = |inputs: &Inputs<'_>| inputs.candidate.child("cam").quantity::<Length>("base_circle_diameter");
        if let Some(by) = self.grown(base) {
            found.push(drag(
                format!("Pushrods {}", self.longer(-0.5 * by)),
                format!(
                    "the base circle is {} in diameter: the lifter stands {}",
                    self.bigger(by),
                    self.higher(0.5 * by)
                ),
            ));
        }
        let kind = self.after.train(side, "lifter").word("kind").unwrap_or_default();
        if kind.ends_with("flat") {
            found.push(drag(
                "New lifters, and a break-in with reduced load",
                "a used flat lifter has the wear of another lobe; a lobe can be lost in minutes",
            ));
        }
        found.push(drag("Timing cover, its seal and one-use bolts", "the gear comes off to change the cam"));
        found
    }

    fn lifter(&self, side: Side) -> Vec<Drag> {
        let lifter = |inputs: &Inputs<'_>, key: &str| inputs.train(side, "lifter").word(key).map(str::to_owned);
        let mut found = Vec::new();
        if let Some((before, after)) = self.word(|inputs| lifter(inputs, "kind")) {
            if before.ends_with("flat") && after.ends_with("roller") {
                found.push(drag(
                    "A cam ground for rollers, with its thrust button and gear",
                    "a roller never goes on a flat cam",
                ));
            }
            if after.ends_with("flat") && before.ends_with("roller") {
                found.push(drag("A cam ground for flat lifters", "a flat lifter never goes on a roller lobe"));
            }
            if before.starts_with("hydraulic") && after.starts_with("solid") {
                found.push(drag(
                    "Adjusters, and lash set at intervals",
                    "a solid lifter takes up nothing by itself; covers come off to set it",
                ));
            }
            if before.starts_with("solid") && after.starts_with("hydraulic") {
                found.push(drag("Oil to the lifters, and preload set", "a hydraulic lifter lives by its oil gallery"));
            }
        }
        let height = |inputs: &Inputs<'_>| inputs.train(side, "lifter").quantity::<Length>("seat_height");
        if let Some(by) = self.grown(height) {
            found
                .push(drag(format!("Pushrods {}", self.longer(-by)), format!("their seat stands {}", self.higher(by))));
        }
        let keeper = self.word(|inputs| lifter(inputs, "anti_rotation"));
        if let Some((_, after)) = keeper.filter(|(_, after)| after == "guide_tray" || after == "link_bar") {
            found.push(drag(
                format!("Room for the {}", after.replace('_', " ")),
                "bars and trays meet casting ridges and valley covers: try two bores before all of them",
            ));
        }
        found
    }

    fn pushrod(&self, side: Side) -> Vec<Drag> {
        let length = |inputs: &Inputs<'_>| inputs.train(side, "pushrod").quantity::<Length>("length");
        let Some(by) = self.grown(length) else { return Vec::new() };
        let stud = self.after.train(side, "rocker").word("mount") == Some("stud");
        let what = format!("{} of preload", self.by(by, "more", "less"));
        let why = if stud {
            "unless the nuts are set again; the rocker stands at another height, and its pattern moves"
        } else {
            "the train has no adjusters: shims under the stands or another length make up for it"
        };
        vec![drag(what, why)]
    }

    fn rocker(&self, side: Side) -> Vec<Drag> {
        let mut found = Vec::new();
        let ratio = |inputs: &Inputs<'_>| inputs.train(side, "rocker").number("ratio");
        if let (Some(before), Some(after)) = (ratio(self.before), ratio(self.after))
            && (before - after).abs() > 1e-9
        {
            found.push(drag(
                format!("All that lift decides, looked at again: ratio {before} to {after}"),
                "piston, coil bind, seals and spring loads change with it; duration at a fixed valve lift as well",
            ));
        }
        let word = |inputs: &Inputs<'_>, key: &str| inputs.train(side, "rocker").word(key).map(str::to_owned);
        if let Some((_, mount)) = self.word(|inputs| word(inputs, "mount")) {
            let (what, why) = match mount.as_str() {
                "stud" => (
                    "Screw-in studs and guide plates, their bosses cut",
                    "nothing else keeps a stud rocker over its valve",
                ),
                "pedestal" => ("Pedestals and bolts that match", "a pedestal sets height and side position at once"),
                _ => ("Stands and shafts, shimmed for height", "a shaft sets geometry for every rocker on it"),
            };
            found.push(drag(what, why));
        }
        let cup = |inputs: &Inputs<'_>| inputs.train(side, "rocker").quantity::<Length>("pivot_to_cup");
        if let Some(by) = self.grown(cup) {
            found.push(drag(
                "Pushrod holes looked at, and ground where they touch",
                format!("the cup stands {} the pivot", self.by(by, "further from", "nearer to")),
            ));
        }
        found.push(drag(
            "Pushrod length and pattern found anew",
            "no two rockers stand at the same height on the same valve",
        ));
        found
    }

    fn valve(&self, side: Side) -> Vec<Drag> {
        let port = |inputs: &Inputs<'_>, key: &str| inputs.port(side).quantity::<Length>(key);
        let mut found = vec![drag("New locks with new valves", "used ones carry the print of the old groove")];
        if let Some(by) = self.grown(|inputs| port(inputs, "valve_diameter")) {
            found.push(drag(
                format!("Seats and throats for heads {}", self.bigger(by)),
                "the flow table in this build was measured with the old valve: measure it again",
            ));
        }
        if let Some(by) = self.grown(|inputs| port(inputs, "stem_diameter")) {
            found.push(drag(
                format!("Guides, seals, locks and retainers for stems {}", self.bigger(by)),
                "a stem runs in a guide of its own size only",
            ));
        }
        if let Some(by) = self.grown(|inputs| inputs.train(side, "valve").quantity("length")) {
            let ratio = self.after.train(side, "rocker").number("ratio").unwrap_or(1.6);
            found.push(drag(
                format!("Tips stand {}", self.higher(by)),
                format!(
                    "installed heights move as much, preload by {} at a ratio of {ratio}",
                    self.text(by.abs() / ratio)
                ),
            ));
        }
        found
    }

    fn retainer(&self) -> Vec<Drag> {
        vec![drag(
            "Installed heights measured anew, and shimmed",
            "retainers and locks differ in where they hold the spring, by .050 in and more",
        )]
    }

    fn spring(&self, side: Side) -> Vec<Drag> {
        let spring = |inputs: &Inputs<'_>| inputs.train(side, "spring").quantity::<Length>("outside_diameter");
        let mut found = Vec::new();
        if let Some(by) = self.grown(spring).filter(|by| *by > 0.0) {
            found.push(drag(
                format!("Seats cut or cups for springs {}", self.bigger(by)),
                "locators, seals and the rocker's body must clear the new diameter",
            ));
        }
        if let Some((_, after)) = self.word(|inputs| form(&inputs.train(side, "spring"))) {
            found.push(drag(format!("Retainers and locators for {after} springs"), "each form has its own steps"));
        }
        found.push(drag(
            "Every installed height set with shims, each spring on the tester",
            "use a proper compressor and eye protection: a compressed spring can injure",
        ));
        found
    }
}

fn form(spring: &Node<'_>) -> Option<String> {
    spring.word("form").map(|form| form.replace('_', " "))
}
