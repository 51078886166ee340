//! What a part drags along: work and other parts that go with it, found by what differs from the part before it.

use super::kind::PartKind;
use crate::candidate::Resolved;
use crate::document::Side;
use crate::quantity::{Dimension, Length, UnitSystem, format_si};
use crate::words::{AntiRotation, ChainRows, LifterKind, Mount, Word};
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
pub(super) struct Change<'a> {
    pub before: &'a Resolved,
    pub after: &'a Resolved,
    pub system: UnitSystem,
}

/// What `kind` drags along on `sides`; what holds for both is said once.
pub(super) fn drags(change: &Change<'_>, kind: PartKind, sides: &[Side]) -> Vec<Drag> {
    let of = |side: &Side| match kind {
        PartKind::Cam | PartKind::Lobe => change.cam(*side),
        PartKind::Lifter => change.lifter(*side),
        PartKind::Pushrod => change.pushrod(*side),
        PartKind::Rocker => change.rocker(*side),
        PartKind::Valve => change.valve(*side),
        PartKind::Retainer => change.retainer(),
        PartKind::Spring => change.spring(*side),
    };
    once(sides.iter().flat_map(of))
}

/// Each once, in the order in which it is first said.
fn once(all: impl Iterator<Item = Drag>) -> Vec<Drag> {
    let mut found: Vec<Drag> = Vec::new();
    for drag in all {
        if !found.contains(&drag) {
            found.push(drag);
        }
    }
    found
}

/// What everything that differs between two candidates drags along, each once.
pub fn drags_between(before: &Resolved, after: &Resolved, system: UnitSystem) -> Vec<Drag> {
    let change = Change { before, after, system };
    let differs = |kind: PartKind, side: Side| {
        let (one, other) = (before.train(side), after.train(side));
        match kind {
            PartKind::Cam => before.given.cam != after.given.cam || before.given.lobe(side) != after.given.lobe(side),
            PartKind::Lobe => false,
            PartKind::Lifter => one.lifter != other.lifter,
            PartKind::Pushrod => one.pushrod != other.pushrod,
            PartKind::Rocker => one.rocker != other.rocker,
            PartKind::Valve => one.valve != other.valve,
            PartKind::Retainer => one.retainer != other.retainer,
            PartKind::Spring => one.spring != other.spring,
        }
    };
    once(PartKind::ALL.into_iter().flat_map(|kind| {
        let sides: Vec<Side> = Side::BOTH.into_iter().filter(|side| differs(kind, *side)).collect();
        drags(&change, kind, &sides)
    }))
}

fn drag(what: impl Into<String>, why: impl Into<String>) -> Drag {
    Drag { what: what.into(), why: why.into() }
}

impl Change<'_> {
    fn text(&self, si: f64) -> String {
        format_si(si, Dimension::Length, self.system)
    }

    /// How much a length grew; `None` while one of them is not known, or where they are equal.
    fn grown(&self, node: impl Fn(&Resolved) -> Option<Length>) -> Option<f64> {
        let by = node(self.after)?.si() - node(self.before)?.si();
        (by.abs() > 1e-7).then_some(by)
    }

    fn word<W: Word>(&self, node: impl Fn(&Resolved) -> Option<W>) -> Option<(W, W)> {
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
        let base = |resolved: &Resolved| resolved.given.cam.base_circle_diameter;
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
        if self.after.train(side).lifter.kind.is_some_and(LifterKind::is_flat) {
            found.push(drag(
                "New lifters, and a break-in with reduced load",
                "a used flat lifter has the wear of another lobe; a lobe can be lost in minutes",
            ));
        }
        found.push(drag("Timing cover, its seal and one-use bolts", "the gear comes off to change the cam"));
        let turns = |resolved: &Resolved| {
            let cam = &resolved.given.cam;
            [cam.phaser_advance, cam.phaser_retard].iter().flatten().any(|angle| angle.si() != 0.0)
        };
        if turns(self.before) && !turns(self.after) {
            found.push(drag(
                "Phaser out: a fixed gear and its bolt, the oil way closed, the controller told",
                "a phaser that nobody turns runs to a stop, and what stands on a road may not lose it unasked: check local rules",
            ));
        }
        let double = |resolved: &Resolved| resolved.given.engine.chain_rows == Some(ChainRows::Double);
        if double(self.after) && !double(self.before) {
            found.push(drag(
                "Spacers behind the oil pump, and a cover with room for two rows",
                "a double row is wider than what it replaces: try the cover on over the chain before it is sealed",
            ));
        }
        found
    }

    fn lifter(&self, side: Side) -> Vec<Drag> {
        let mut found = Vec::new();
        if let Some((before, after)) = self.word(|resolved| resolved.train(side).lifter.kind) {
            if before.is_flat() && after.is_roller() {
                found.push(drag(
                    "A cam ground for rollers, with its thrust button and gear",
                    "a roller never goes on a flat cam",
                ));
            }
            if after.is_flat() && before.is_roller() {
                found.push(drag("A cam ground for flat lifters", "a flat lifter never goes on a roller lobe"));
            }
            if before.is_hydraulic() && after.is_solid() {
                found.push(drag(
                    "Adjusters, and lash set at intervals",
                    "a solid lifter takes up nothing by itself; covers come off to set it",
                ));
            }
            if before.is_solid() && after.is_hydraulic() {
                found.push(drag("Oil to the lifters, and preload set", "a hydraulic lifter lives by its oil gallery"));
            }
        }
        let height = |resolved: &Resolved| resolved.train(side).lifter.seat_height;
        if let Some(by) = self.grown(height) {
            found
                .push(drag(format!("Pushrods {}", self.longer(-by)), format!("their seat stands {}", self.higher(by))));
        }
        let deactivates = |resolved: &Resolved| resolved.train(side).lifter.most_lift.is_some();
        if deactivates(self.before) && !deactivates(self.after) {
            found.push(drag(
                "Deactivation out: lifters and trays of one kind, a valley cover without its valves, the oil ways closed, the controller told",
                "a lifter that switches off beside others that do not breaks its neighbours' oil, and on a road it may not go unasked: check local rules",
            ));
        }
        let keeper = self.word(|resolved| resolved.train(side).lifter.anti_rotation);
        if let Some((_, after)) =
            keeper.filter(|(_, after)| matches!(after, AntiRotation::GuideTray | AntiRotation::LinkBar))
        {
            found.push(drag(
                format!("Room for the {}", after.spoken()),
                "bars and trays meet casting ridges and valley covers: try two bores before all of them",
            ));
        }
        found
    }

    fn pushrod(&self, side: Side) -> Vec<Drag> {
        let length = |resolved: &Resolved| resolved.train(side).pushrod.length;
        let Some(by) = self.grown(length) else { return Vec::new() };
        let stud = self.after.train(side).rocker.mount == Some(Mount::Stud);
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
        let ratio = |resolved: &Resolved| resolved.train(side).rocker.ratio;
        if let (Some(before), Some(after)) = (ratio(self.before), ratio(self.after))
            && (before - after).abs() > 1e-9
        {
            found.push(drag(
                format!("All that lift decides, looked at again: ratio {before} to {after}"),
                "piston, coil bind, seals and spring loads change with it; duration at a fixed valve lift as well",
            ));
        }
        if let Some((_, mount)) = self.word(|resolved| resolved.train(side).rocker.mount) {
            let (what, why) = match mount {
                Mount::Stud => (
                    "Screw-in studs and guide plates, their bosses cut",
                    "nothing else keeps a stud rocker over its valve",
                ),
                Mount::Pedestal => {
                    ("Pedestals and bolts that match", "a pedestal sets height and side position at once")
                }
                Mount::Shaft | Mount::PairedShaft => {
                    ("Stands and shafts, shimmed for height", "a shaft sets geometry for every rocker on it")
                }
            };
            found.push(drag(what, why));
        }
        let cup = |resolved: &Resolved| resolved.train(side).rocker.pivot_to_cup;
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
        let mut found = vec![drag("New locks with new valves", "used ones carry the print of the old groove")];
        if let Some(by) = self.grown(|resolved| resolved.port(side).valve_diameter) {
            found.push(drag(
                format!("Seats and throats for heads {}", self.bigger(by)),
                "the flow table in this build was measured with the old valve: measure it again",
            ));
        }
        if let Some(by) = self.grown(|resolved| resolved.port(side).stem_diameter) {
            found.push(drag(
                format!("Guides, seals, locks and retainers for stems {}", self.bigger(by)),
                "a stem runs in a guide of its own size only",
            ));
        }
        if let Some(by) = self.grown(|resolved| resolved.train(side).valve.length) {
            let ratio = self.after.train(side).rocker.ratio.unwrap_or(1.6);
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
        let spring = |resolved: &Resolved| resolved.train(side).spring.outside_diameter;
        let mut found = Vec::new();
        if let Some(by) = self.grown(spring).filter(|by| *by > 0.0) {
            found.push(drag(
                format!("Seats cut or cups for springs {}", self.bigger(by)),
                "locators, seals and the rocker's body must clear the new diameter",
            ));
        }
        if let Some((_, after)) = self.word(|resolved| resolved.train(side).spring.form) {
            found.push(drag(
                format!("Retainers and locators for {} springs", after.spoken()),
                "each form has its own steps",
            ));
        }
        found.push(drag(
            "Every installed height set with shims, each spring on the tester",
            "use a proper compressor and eye protection: a compressed spring can injure",
        ));
        found
    }
}
