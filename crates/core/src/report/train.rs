//! From lifter to valve: what is lost on the way, the rocker through its sweep, the pushrod, and what to order.

use crate::document::Side;
use crate::quantity::Shown;
use serde::Serialize;

report! {
    /// One side of a train that turns slowly.
    pub struct TrainReport {
        /// Lift from the lobe down, a step for each thing that changes it.
        budget: Vec<BudgetStep>,
        /// Ratio of the whole lift, as measured, from the geometry, or nominal.
        true_ratio: f64,
        /// Where ratio and flex come from, in words.
        origin: String,
        /// Stiffness at the valve; absent where nothing is known of it.
        stiffness_n_per_mm: Option<f64>,
        /// What each part gives at full lift; a prediction, for readings cannot tell parts apart.
        shares: Vec<FlexShare>,
        /// Crank degrees by which it opens later and closes earlier than rigid parts at .050 of lobe lift.
        opens_later_deg: f64,
        /// See above.
        closes_earlier_deg: f64,
        /// Durations of rigid parts and of the valve that runs, over valve lift.
        durations: RunningDurations,
        /// Cam degrees from full lift of the curves below.
        cam_deg: Vec<f64>,
        /// Valve lift of rigid parts at the nominal ratio, less lash.
        ideal_mm: Vec<f64>,
        /// Valve lift while it turns slowly.
        running_mm: Vec<f64>,
        /// Load on the pushrod at full lift.
        pushrod_load_n: Option<f64>,
        /// The rocker through its sweep; absent while its geometry is unknown.
        rocker: Option<RockerReport>,
        /// The pushrod; absent while its sizes are unknown.
        pushrod: Option<PushrodReport>,
        /// Preload after the work of the worksheet; absent for solid lifters and while preload is unknown.
        preload: Option<PreloadReport>,
        /// Lash hot and cold; absent for hydraulic lifters.
        lash: Option<LashReport>,
        /// Which pushrod goes where; empty without measured ones.
        matching: Vec<MatchReport>,
        /// What to order so that the valve gets what the card promises; absent where no lobe meets it.
        order: Option<OrderReport>,
    }

    /// Durations over valve lift.
    pub struct RunningDurations {
        /// Valve lift.
        valve_mm: Vec<f64>,
        /// Crank degrees the valve of rigid parts is above it, at the nominal ratio.
        ideal_deg: Vec<f64>,
        /// The same of the valve that runs.
        running_deg: Vec<f64>,
    }

    /// One step of the lift budget.
    pub struct BudgetStep {
        /// Stable identifier.
        id: String,
        /// In words.
        label: String,
        /// Lift after it.
        lift_mm: f64,
        /// The same as read.
        shown: Shown,
        /// What the step gives or takes, as read.
        change: Shown,
    }

    /// What one part gives.
    pub struct FlexShare {
        /// Which part.
        part: String,
        /// At the valve at full lift.
        flex_mm: f64,
        /// The same as read.
        shown: Shown,
    }

    /// A rocker through its sweep, origin in its pivot, y along the stem, x towards the valve.
    pub struct RockerReport {
        /// Pushrod's end with the valve closed.
        cup_mm: [f64; 2],
        /// Tip's centre with the valve closed.
        tip_mm: [f64; 2],
        /// Radius of roller or pad.
        tip_radius_mm: f64,
        /// Pivot to the stem's axis.
        stem_mm: f64,
        /// Stem diameter; absent while unknown.
        stem_diameter_mm: Option<f64>,
        /// Direction of the pushrod.
        pushrod_direction: [f64; 2],
        /// Length of the pushrod.
        pushrod_mm: f64,
        /// Lift of the lifter.
        lifter_mm: Vec<f64>,
        /// Turn from the closed valve.
        turn_deg: Vec<f64>,
        /// Pushrod's end.
        cup_at_mm: Vec<[f64; 2]>,
        /// Valve lift of rigid parts.
        valve_mm: Vec<f64>,
        /// Valve lift for a unit of lifter lift there.
        ratio: Vec<f64>,
        /// Contact on the stem's tip from its axis, away from the pivot.
        contact_mm: Vec<f64>,
        /// Width of the pattern the contact leaves.
        pattern: Shown,
        /// How far the tip slides, or its roller rolls, on the stem in one opening.
        scrub: Shown,
        /// Greatest push of the tip across the guide: friction of a pad, or of a roller, and the contact's lever on the stem.
        side_load: Option<Shown>,
        /// Lifter lift at which it locks, where it does before full lift.
        locks_at_mm: Option<f64>,
    }

    /// A pushrod as a column.
    pub struct PushrodReport {
        /// Along its length.
        stiffness_n_per_mm: f64,
        /// Load at which it bends out.
        buckling_load_n: f64,
        /// Of the bare tube.
        mass_g: f64,
        /// Length that gives the preload wanted over the checked one; absent while that is unknown.
        wanted: Option<Shown>,
        /// Preload, or lash where negative, that the present length gives over the checked one.
        gives: Option<Shown>,
        /// Length change that puts a stud rocker's pivot at the height its school asks for; absent where that is not
        /// measured, or set by stand or shaft.
        for_geometry: Option<Shown>,
        /// What the next size up would be, in words.
        next: String,
        /// Lift it gives back.
        next_gain: Shown,
        /// What it weighs more.
        next_mass_g: f64,
    }

    /// What machining makes of the preload.
    pub struct PreloadReport {
        /// As measured or planned.
        now: Shown,
        /// What each piece of work does.
        work: Vec<WorkReport>,
        /// After all of it.
        after: Shown,
        /// In words, against the school of the build and the plunger's travel.
        word: String,
        /// Change of pushrod length that would bring it back.
        pushrod: Shown,
        /// What this preload and each school's can do to the valve at most.
        schools: Vec<PreloadSchool>,
        /// How far the plunger bleeds down in one opening; empty without a leak-down reading.
        bleeds: Vec<BleedReport>,
    }

    /// A preload and what a lifter with it can do to the valve at most.
    pub struct PreloadSchool {
        /// In words.
        name: String,
        /// At the plunger.
        preload: Shown,
        /// Valve held open when the lifter pumps up.
        held_open: Shown,
        /// Lift lost when it bleeds all the way down; absent without the plunger's travel.
        lost: Option<Shown>,
    }

    /// Bleeding at one speed.
    pub struct BleedReport {
        /// In words.
        at: String,
        /// Of the plunger, in one opening.
        plunger: Shown,
        /// At the valve as it closes.
        valve: Shown,
    }

    /// One piece of work.
    pub struct WorkReport {
        /// Field of the document, without its path.
        key: String,
        /// What it does to the plunger.
        change: Shown,
    }

    /// Lash and heat.
    pub struct LashReport {
        /// At the valve, as the document has it.
        hot: Shown,
        /// What to set cold.
        cold: Shown,
        /// How it grows, by block, head and pushrod.
        growth: Shown,
    }

    /// One pushrod in its place.
    pub struct MatchReport {
        /// Place, counted from one.
        place: usize,
        /// The cylinder and valve it is, where the places are two for each cylinder.
        cylinder: Option<usize>,
        /// See above.
        side: Option<Side>,
        /// Pushrod on the bench, counted from one.
        pushrod: usize,
        /// Shims under the stand.
        shims: u32,
        /// Preload that results.
        preload: Shown,
    }

    /// What to grind.
    pub struct OrderReport {
        /// Lobe lift.
        lobe_lift: Shown,
        /// Duration at each checking height of the card, crank degrees.
        checks: Vec<OrderCheck>,
        /// What is left of the difference at full lift.
        residual: Shown,
    }

    /// A line of the order.
    pub struct OrderCheck {
        /// Height in lobe lift.
        height: Shown,
        /// On the card.
        card_deg: f64,
        /// To grind.
        order_deg: f64,
        /// What the valve then runs at, referred to the lobe; absent so low that lash and flex take it up.
        running_deg: Option<f64>,
    }
}
