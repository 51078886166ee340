//! Rules about the head: stems against their guides, springs in their pockets; and what the parts cost.

use super::figures::{GUIDE_TIGHT, HARDWARE_TIGHT, INCH, POCKET_ROOM, guide_pressure};
use super::levers::WIDER_SPRING_POCKET;
use super::measure::Measure;
use super::reads::{LOBE, RATIO, SPRING, reads};
use super::room::swept;
use super::rule::{Finding, Rule, common};
use crate::candidate::{Gap, Part, tip_friction};
use crate::given::{Needs, need};
use crate::quantity::Length;
use crate::report::{Place, Sense};
use crate::train::rocker::{Pose, Rocker};
use crate::train::room::Guide;

/// The stem pressed against its guide.
pub static GUIDE_PRESSURE: Rule = Rule {
    id: "guide_pressure",
    title: "guide side load",
    place: Place::Rocker,
    sense: Sense::AtMost,
    measure: Measure::Pressure,
    sided: true,
    formula: "push of the tip's friction and turning by its lever on the stem, at the top of the guide over its upper third, greatest through the sweep: iron 1.9, bronze 1.6, powder metal 2.1 MPa, set so that a plain pad reaches iron's near .640 in of lift on 350 lbf; advice",
    school: |_| "roller tip where this is too much; the other school keeps a light plain tip for its speed",
    reads: &[
        reads![Rocker: "tip", "pivot_height", "stem_offset", "pivot_to_tip", "pivot_to_cup", "tip_radius", "cup_drop",
            "pushrod_angle"; Port: "guide_material", "guide_length", "tip_to_guide", "stem_diameter", "valves";
            Pushrod: "length"],
        SPRING,
        LOBE,
        RATIO,
    ],
    gas: false,
    find: |case| {
        let (rocker, port) = (&case.resolved.train(case.side).rocker, case.resolved.port(case.side));
        let own = case.resolved.side(case.side);
        // A bridge takes the tip's push to its own pin.
        if own.valves > 1.0 {
            return None;
        }
        let most = guide_pressure(port.guide_material?);
        let found = || -> Part<Finding> {
            let mut needs = Needs::default();
            let (length, tip_to_guide) = (need!(needs, port.guide_length).si(), need!(needs, port.tip_to_guide).si());
            let stem = need!(needs, port.stem_diameter).si();
            needs.met(())?;
            let friction = tip_friction(rocker).ok_or_else(|| Gap::needing(vec![rocker.at("tip")]))?;
            let spring = own.spring.clone()?;
            let load = |valve: f64| spring.load(Length::from_si(valve)).si();
            let places = |_: &Rocker, sweep: &[Pose]| {
                Some(sweep.iter().map(|pose| (pose.valve, pose.contact)).collect::<Vec<_>>())
            };
            let guide = Guide { length, tip_to_guide, stem };
            Ok(Finding::at_most(most, GUIDE_TIGHT * most, guide.pressure(&swept(case, 0.0, places)?, friction, load)))
        };
        Some(found())
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
    reads: &[reads![Spring: "outside_diameter"; Port: "spring_pocket"]],
    gas: false,
    find: |case| {
        let spring = &case.resolved.train(case.side).spring;
        let pocket = case.resolved.port(case.side).spring_pocket?;
        let outside = spring.outside_diameter.ok_or_else(|| Gap::needing(vec![spring.at("outside_diameter")]));
        let left = outside.map(|outside| pocket.si() - outside.si());
        Some(left.map(|left| Finding::at_least(POCKET_ROOM * INCH, 0.5 * HARDWARE_TIGHT * INCH, left)))
    },
    advice: false,
    levers: &[WIDER_SPRING_POCKET],
};

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
    reads: &[
        reads![Target: "budget"; Cam: "price"],
        reads![Lifter: "price"; Pushrod: "price"; Rocker: "price"; Valve: "price"; Retainer: "price"; Spring: "price"],
    ],
    gas: false,
    find: |case| {
        let given = &case.resolved.given;
        let budget = given.target.budget?;
        let most = budget.si();
        (!given.prices.is_empty()).then(|| Ok(Finding::at_most(most, 0.05 * most, given.money())))
    },
    advice: false,
    levers: &[],
};
