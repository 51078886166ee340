//! The valve train in motion over speed.

use super::block::Named;
use crate::quantity::Shown;
use serde::Serialize;

/// What loses control first.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum LimitedBy {
    /// The train parts while the lobe holds the valve open.
    Separation,
    /// The valve leaves its seat again after it has landed.
    Bounce,
    /// The valve does not close.
    HangOpen,
    /// The same, since the plunger of a hydraulic lifter has risen.
    PumpUp,
    /// The train parts while coils strike each other.
    CoilClash,
    /// Nothing, up to the highest speed looked at.
    None,
}

/// What a change of the train is about.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Topic {
    /// The valve: mass and material.
    Valve,
    /// Retainer and locks.
    Retainer,
    /// The rocker's tip.
    Tip,
    /// The pushrod's size.
    Pushrod,
    /// What the rocker pivots on.
    Pivot,
    /// The spring package.
    Spring,
    /// Kind and mass of the lifter.
    Lifter,
    /// How far the valve is opened.
    Lift,
    /// How firmly the lobe opens and closes.
    Flank,
}

report! {
    /// Both valves of a candidate in motion.
    pub struct DynamicsReport {
        /// Gap, bounce or hang-open that counts as lost control.
        threshold_mm: f64,
        /// The same to read.
        threshold: Shown,
        /// Highest speed a limit was looked for at.
        looked_to_rpm: f64,
        /// Where it is shifted and where a missed shift lets it turn, where the plan says.
        shift_rpm: Option<f64>,
        /// Shift and overspeed.
        missed_rpm: Option<f64>,
        /// Intake valve.
        intake: DynamicsSide,
        /// Exhaust valve.
        exhaust: DynamicsSide,
        /// Whether the gas on the valves is what breathing computed; else it is estimated.
        gas_computed: bool,
        /// The answer in a sentence.
        says: String,
        /// What moves the limit of the valve that loses control first, what buys most first; empty until it is computed.
        what_buys_speed: Vec<SpeedBought>,
        /// The same valve's limit once its springs have lost load; empty until it is computed.
        worn: Vec<WornReport>,
        /// What the train of that valve gives, and what moves in it, by part; empty until it is computed.
        shares: Vec<TrainShare>,
        /// Choices of the trade with the figures of this build; empty until what buys speed is computed.
        choices: Vec<ChoiceReport>,
    }

    /// A spring that has lost load.
    pub struct WornReport {
        /// Load left, of that when new.
        load_share: f64,
        /// Median limiting speed with it.
        limiting_speed_rpm: f64,
    }

    /// One part of a train as it counts at the valve.
    pub struct TrainShare {
        /// Which part.
        part: String,
        /// Of what the train gives under load.
        gives: f64,
        /// Of what moves with the valve.
        moves: f64,
    }

    /// A choice on which practitioners differ.
    pub struct ChoiceReport {
        /// What is chosen.
        topic: Topic,
        /// The question.
        question: String,
        /// What the figures of this build say.
        says: Shown,
        /// What the schools say.
        schools: Vec<String>,
    }

    /// Both trains through a cycle at one speed, for a drawing that moves.
    pub struct FilmReport {
        /// Speed of the crank.
        rpm: f64,
        /// Intake.
        intake: FilmSide,
        /// Exhaust.
        exhaust: FilmSide,
    }

    /// One train through a cycle, every fourth degree from 360 before full lift.
    pub struct FilmSide {
        /// From firing top dead centre.
        crank_deg: Vec<f64>,
        /// Lift of the valve.
        valve_mm: Vec<f64>,
        /// Where the rocker's tip stands, as a lift of the valve.
        tip_mm: Vec<f64>,
        /// Rise of the lifter.
        lifter_mm: Vec<f64>,
        /// Gap between lobe and lifter, where there is one.
        lobe_gap_mm: Vec<f64>,
        /// Gap in the pushrod's ends, where there is one.
        cup_gap_mm: Vec<f64>,
        /// Gap between tip and stem beyond the lash, where there is one.
        stem_gap_mm: Vec<f64>,
        /// How far each mass of the outer coil has gone down, from the seat up.
        coil_mm: Vec<Vec<f64>>,
        /// How many there are.
        coil_masses: usize,
    }

    /// One valve over speed.
    pub struct DynamicsSide {
        /// Speeds of the columns below.
        speed_rpm: Vec<f64>,
        /// Median of the draws; `null` when none is lost, or while it is not computed.
        limiting_speed_rpm: Option<f64>,
        /// Nine of ten draws lie between, absent while the limit is that of the usual train alone; a limit beyond the speeds looked at counts as the highest of them.
        limiting_speed_band_rpm: Option<[f64; 2]>,
        /// What most of the draws lose control by.
        limited_by: LimitedBy,
        /// The hand check with the share an elastic train keeps, and why the two differ.
        hand_check_rpm: Option<f64>,
        /// In a sentence.
        beside_hand_check: Option<String>,
        /// Largest gap between lobe and stem while the lobe holds the valve open, seen at the valve.
        loft_mm: Vec<f64>,
        /// Largest lift after the first landing.
        bounce_mm: Vec<f64>,
        /// How often it leaves its seat by a fortieth of a millimetre.
        bounces: Vec<usize>,
        /// Least lift on the base circle.
        hang_open_mm: Vec<f64>,
        /// Speed of the first landing.
        seating_velocity_m_per_s: Vec<f64>,
        /// Largest lift.
        maximum_lift_mm: Vec<f64>,
        /// Least load on the lobe while it holds the valve open.
        minimum_contact_n: Vec<f64>,
        /// Where that is, from firing top dead centre.
        minimum_contact_at_deg: Vec<f64>,
        /// Largest load on the lobe.
        peak_contact_n: Vec<f64>,
        /// Largest load in the pushrod.
        peak_pushrod_n: Vec<f64>,
        /// Largest load on the rocker's pivot.
        peak_pivot_n: Vec<f64>,
        /// Most less least load of the coils while the valve is closed.
        spring_swing_n: Vec<f64>,
        /// What coils that touch press on each other with.
        coil_clash_n: Vec<f64>,
        /// Greatest share of its strength that any wire bears, waves of the coils included; absent for springs known by
        /// loads alone.
        spring_stress_share: Option<Vec<f64>>,
        /// Greatest contact (Hertz) stress on the lobe; absent while its core is not known.
        lobe_stress_mpa: Option<Vec<f64>>,
        /// Load the pushrod buckles at over the largest it bears; absent while its tube is not known.
        pushrod_reserve: Option<Vec<f64>>,
        /// Least gap to the piston along the stem with the lift the valve really has, loft and bounce included, nothing of
        /// the engine's growth; absent while the gap at rest is not known.
        piston_gap_mm: Option<Vec<f64>>,
        /// Where that is, from firing top dead centre.
        piston_gap_at_deg: Option<Vec<f64>>,
        /// Highest place of a hydraulic lifter's plunger over its rest.
        plunger_mm: Vec<f64>,
        /// Cycles turned.
        cycles: Vec<usize>,
        /// Whether they repeat; where they do not, the worse of the last two counts.
        converged: Vec<bool>,
        /// Angles of the two tables below, from firing top dead centre, as they follow each other from 360 before full lift.
        crank_deg: Vec<f64>,
        /// Least load on the lobe at each speed and angle.
        contact_n: Vec<Vec<f64>>,
        /// Lift of the valve at each speed and angle.
        valve_mm: Vec<Vec<f64>>,
        /// Lift of rigid parts at each angle.
        rigid_mm: Vec<f64>,
    }

    /// A figure that a change moves.
    pub struct MovedReport {
        /// What it is.
        what: String,
        /// Before.
        from: Shown,
        /// After.
        to: Shown,
    }

    /// A change and what it does to the limiting speed.
    pub struct SpeedBought {
        /// What it is about.
        topic: Topic,
        /// What is done.
        change: String,
        /// The field it changes, where it is one.
        field: Option<Named>,
        /// From.
        from: Option<Shown>,
        /// To.
        to: Option<Shown>,
        /// Median over the draws, each against itself.
        gain_rpm: f64,
        /// Nine of ten draws lie between.
        gain_band_rpm: [f64; 2],
        /// What it costs beside money.
        costs: String,
        /// What else it moves.
        moves: Vec<MovedReport>,
        /// As the shelf has it.
        price: Option<Shown>,
        /// Why it does less than the trade expects, where it does.
        why: Option<String>,
    }
}
