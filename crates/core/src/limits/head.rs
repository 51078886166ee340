//! Rules about the head: stems against their guides, springs in their pockets; and what the parts cost.

use super::figures::{GUIDE_TIGHT, HARDWARE_TIGHT, INCH, POCKET_ROOM, guide_pressure};
use super::rule::{Finding, Lever, Measure, Rule, common};
use crate::candidate::{Gap, Part, tip_friction};
use crate::document::{Missing, Needs, Side};
use crate::quantity::{Length, Money};
use crate::report::{Place, Sense};
use crate::train::room::Guide;

/// The stem pressed against its guide.
pub static GUIDE_PRESSURE: Rule = Rule {
    id: "guide_pressure",
    title: "stem against its guide",
    place: Place::Rocker,
    sense: Sense::AtMost,
    measure: Measure::Pressure,
    sided: true,
    formula: "push of the tip's friction and turning by its lever on the stem, at the top of the guide over its upper third, greatest through the sweep: iron 1.9, bronze 1.6, powder metal 2.1 MPa, set so that a plain pad reaches iron's near .640 in of lift on 350 lbf",
    school: |_| "roller tip where this fails; the other school keeps a light plain tip for its speed",
    find: |inputs, side, _| {
        let port = inputs.port(side);
        // A bridge takes the tip's push to its own pin.
        if inputs.side(side).valves > 1.0 {
            return None;
        }
        let most = guide_pressure(port.word("guide_material")?);
        let found = || -> Part<Finding> {
            let mut needs = Needs::default();
            let mut length = |key: &str| needs.quantity::<Length>(&port, key).si();
            let guide = Guide {
                length: length("guide_length"),
                tip_to_guide: length("tip_to_guide"),
                stem: length("stem_diameter"),
            };
            needs.met(())?;
            let own = inputs.side(side);
            let (running, spring) = (own.running.clone()?, own.spring.clone()?);
            let rocker = inputs.train(side, "rocker");
            let friction = tip_friction(&rocker).ok_or_else(|| Missing(vec![rocker.path_of("tip")]))?;
            let load = |valve: f64| spring.load(Length::from_si(valve)).si();
            let mut places: Vec<_> = running.sweep.iter().map(|pose| (pose.valve, pose.contact)).collect();
            if places.is_empty() {
                // Without the rocker's geometry the friction of its tip is still known, and its lever taken for none.
                let full = own.most_lift()?.si();
                places = (0..=16).map(|step| (full * f64::from(step) / 16.0, 0.0)).collect();
            }
            Ok(Finding::at_most(most, GUIDE_TIGHT * most, guide.pressure(&places, friction, load)))
        };
        Some(found())
    },
    inputs: |inputs, side| {
        let (rocker, port) = (inputs.train(side, "rocker"), inputs.port(side));
        let mut used = ["tip", "pivot_height", "stem_offset"].map(|key| rocker.input(key)).to_vec();
        used.extend(["guide_material", "guide_length", "tip_to_guide", "stem_diameter"].map(|key| port.input(key)));
        used.push(inputs.train(side, "spring").input("points"));
        used
    },
    advice: true,
    levers: &[],
};

/// The spring's foot in its pocket.
pub static SPRING_POCKET: Rule = Rule {
    id: "spring_pocket",
    title: "spring in its pocket",
    place: Place::Spring,
    sense: Sense::AtLeast,
    measure: Measure::Length,
    sided: true,
    formula: "diameter of the pocket less that of the spring; a larger spring wants its seat cut, and the water jacket is near",
    school: common,
    find: |inputs, side, _| {
        let (port, spring) = (inputs.port(side), inputs.train(side, "spring"));
        let pocket: Length = port.quantity("spring_pocket")?;
        let outside: Option<Length> = spring.quantity("outside_diameter");
        let gap = outside.ok_or_else(|| Gap::from(Missing(vec![spring.path_of("outside_diameter")])));
        let left = gap.map(|outside| pocket.si() - outside.si());
        Some(left.map(|left| Finding::at_least(POCKET_ROOM * INCH, 0.5 * HARDWARE_TIGHT * INCH, left)))
    },
    inputs: |inputs, side| {
        vec![inputs.train(side, "spring").input("outside_diameter"), inputs.port(side).input("spring_pocket")]
    },
    advice: false,
    levers: &[Lever { part: "port", field: "spring_pocket", step: 0.010 * INCH, most: 20.0 }],
};

/// Parts of the train that carry a price.
const PRICED: [&str; 6] = ["lifter", "pushrod", "rocker", "valve", "retainer", "spring"];

/// What the parts of the candidate cost.
pub static COST: Rule = Rule {
    id: "cost",
    title: "Parts against the budget",
    place: Place::Plan,
    sense: Sense::AtMost,
    measure: Measure::Money,
    sided: false,
    formula: "sum of the prices given with cam and parts, each once; machining, gaskets and labour are not in it",
    school: |_| "the budget of this build",
    find: |inputs, _, _| {
        let budget: Money = inputs.target.quantity("budget")?;
        let cam: Option<Money> = inputs.candidate.child("cam").quantity("price");
        let mut prices: Vec<f64> = cam.map(Money::si).into_iter().collect();
        for part in PRICED {
            // One price for both sides, or one of each side that has its own.
            let mut told: Vec<String> = Vec::new();
            for node in Side::BOTH.map(|side| inputs.train(side, part)) {
                if let Some(price) = node.quantity::<Money>("price")
                    && !told.contains(&node.path_of("price"))
                {
                    told.push(node.path_of("price"));
                    prices.push(price.si());
                }
            }
        }
        (!prices.is_empty()).then(|| Ok(Finding::at_most(budget.si(), 0.05 * budget.si(), prices.iter().sum())))
    },
    inputs: |inputs, _| {
        let mut used = vec![inputs.target.input("budget"), inputs.candidate.child("cam").input("price")];
        used.extend(PRICED.into_iter().flat_map(|part| {
            let node = inputs.train(Side::Intake, part);
            node.has("price").then(|| node.input("price"))
        }));
        used
    },
    advice: false,
    levers: &[],
};
