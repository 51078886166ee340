//! A first cam by the card rules of the trade: duration for speed and displacement, a split for the exhaust port,
//! separation for the overlap that the idle stands, lift for head and lobe. Each rule says why, and what it is worth:
//! common practice, no source, partly from memory. Choosing in earnest comes after it.

use crate::candidate::{Gap, Part, Resolved};
use crate::document::Side;
use crate::given::{Needs, need};
use crate::limits::figures::{
    LAST_LIFT, LAST_LIFT_FLOW, OVERLAP_BY_VACUUM, OVERLAP_TIGHT, REVERSION_OVERLAP, overlap_in,
};
use crate::quantity::{Dimension, INCH, INCH_MERCURY, Shown, shown};
use crate::table::held;
use crate::words::{ExhaustManifold, Induction, LifterKind, Use};

/// Displacement of the cylinder the rule of duration is written for, cm3.
const USUAL_CYLINDER: f64 = 715.0;
/// Duration at .050 of a hydraulic lifter that peaks at 5,000 rpm in it, and what 1,000 rpm more ask for, crank degrees.
const DURATION: (f64, f64) = (212.0, 18.0);
/// Beyond this speed ports and pipes do more of the work, and 1,000 rpm more ask for less, crank degrees.
const FAST: (f64, f64) = (6500.0, 12.0);
/// Separation by how much cylinder an intake valve has to fill: of none, and less of it for every cubic inch a cylinder has
/// for each inch of valve (from memory: for chambers of about ten to one).
const SEPARATION: (f64, f64) = (128.0, 0.91);
/// Lash takes so many degrees of a solid lifter's duration.
const SOLID_ADDS: f64 = 8.0;
/// Duration a rule of thumb may say, crank degrees.
const DURATION_RANGE: (f64, f64) = (164.0, 280.0);
/// Flow of the exhaust over that of the intake at which no split is wanted, and degrees for each unit below it.
const SPLIT: (f64, f64) = (0.82, 80.0);

/// A decision of the card, with its reason.
#[derive(Debug, Clone, PartialEq)]
pub struct Because {
    /// What was decided.
    pub decision: &'static str,
    /// As read.
    pub value: Shown,
    /// Why, in a sentence.
    pub why: String,
}

/// Numbers of a card. Angles in crank degrees, at .050 in of lobe lift.
#[derive(Debug, Clone, PartialEq)]
pub struct CardCam {
    /// Intake and exhaust duration.
    pub duration: [f64; 2],
    /// Intake and exhaust lobe lift, m.
    pub lobe_lift: [f64; 2],
    /// Lobe separation.
    pub separation: f64,
    /// Intake centreline.
    pub centreline: f64,
    /// The decisions in their order.
    pub because: Vec<Because>,
}

/// The cam that a card's rules give for this plan and engine.
///
/// # Errors
/// What plan and engine lack for it.
pub fn card_cam(resolved: &Resolved) -> Part<CardCam> {
    let (target, engine) = (&resolved.given.target, &resolved.given.engine);
    let mut needs = Needs::default();
    let peak = need!(needs, target.peak_power_at).as_rpm();
    if engine.bore.is_none() || engine.stroke.is_none() {
        need!(needs, engine.bore);
        need!(needs, engine.stroke);
    }
    let lifter = &resolved.train(Side::Intake).lifter;
    let kind = needs.note(lifter.kind, lifter.at("kind")).unwrap_or(LifterKind::HydraulicRoller);
    needs.met(()).map_err(Gap::from)?;
    let cylinder = resolved.cylinder.clone()?;
    let displacement = cylinder.displacement().as_cc();
    let each = displacement / cylinder.count.max(1.0);
    let mut card = Card { resolved, kind, displacement, because: Vec::new() };
    let intake = card.intake_duration(peak, each);
    let exhaust = card.exhaust_duration(intake);
    let separation = card.separation([intake, exhaust]);
    let centreline = card.centreline(separation);
    let lobe_lift =
        [(Side::Intake, intake), (Side::Exhaust, exhaust)].map(|(side, duration)| card.lift(side, duration));
    Ok(CardCam { duration: [intake, exhaust], lobe_lift, separation, centreline, because: card.because })
}

struct Card<'a> {
    resolved: &'a Resolved,
    kind: LifterKind,
    displacement: f64,
    because: Vec<Because>,
}

impl Card<'_> {
    fn decide(&mut self, decision: &'static str, value: Shown, why: String) {
        self.because.push(Because { decision, value, why });
    }

    fn degrees(&mut self, decision: &'static str, deg: f64, why: String) -> f64 {
        self.decide(decision, Shown::plain(format!("{deg:.0} deg")), why);
        deg
    }

    fn intake_duration(&mut self, peak: f64, each: f64) -> f64 {
        // A larger cylinder asks for more of the same port: the same cam peaks lower in it, as the root of its volume.
        let as_usual = peak * (each / USUAL_CYLINDER).sqrt();
        let solid = if self.kind.is_solid() && !self.resolved.given.is_diesel() { SOLID_ADDS } else { 0.0 };
        let (slow, fast) = (as_usual.min(FAST.0), (as_usual - FAST.0).max(0.0));
        let deg = DURATION.0 + (DURATION.1 * (slow - 5000.0) + FAST.1 * fast) / 1000.0 + solid;
        let deg = even(deg.clamp(DURATION_RANGE.0, DURATION_RANGE.1));
        let lash =
            if solid > 0.0 { format!("; {SOLID_ADDS:.0} more for the lash of a solid lifter") } else { String::new() };
        self.degrees(
            "Intake duration at .050",
            deg,
            format!(
                "power at {peak:.0} rpm from {each:.0} cc a cylinder: like {as_usual:.0} rpm of a usual one, at {:.0} deg for 5,000 and {:.0} more a thousand, {:.0} beyond 6,500{lash}",
                DURATION.0, DURATION.1, FAST.1
            ),
        )
    }

    fn exhaust_duration(&mut self, intake: f64) -> f64 {
        let share = self.port_share();
        let by_port = ((SPLIT.0 - share.unwrap_or(0.75)) * SPLIT.1).clamp(0.0, 12.0);
        let given = &self.resolved.given;
        let narrow = given.primary.manifold.is_some_and(|kind| kind != ExhaustManifold::Headers);
        let boosted = given.induction.kind == Some(Induction::Boosted);
        let more = if narrow { 2.0 } else { 0.0 } + if boosted { 4.0 } else { 0.0 };
        let deg = even(intake + by_port + more);
        let flows = share.map_or_else(
            || "no flow tables: three quarters taken".to_owned(),
            |share| format!("the exhaust flows {:.0} % of the intake", 100.0 * share),
        );
        let rest = match (narrow, boosted) {
            (true, true) => "; its manifold and the turbine ask for more",
            (true, false) => "; its manifold asks for a little more",
            (false, true) => "; boosted, so a little more",
            (false, false) => "",
        };
        self.degrees("Exhaust duration at .050", deg, format!("{:+.0} deg: {flows}{rest}", deg - intake))
    }

    /// Flow of the exhaust port over that of the intake at a quarter of the intake valve's diameter.
    fn port_share(&self) -> Option<f64> {
        let at = 0.25 * self.resolved.port(Side::Intake).valve_diameter?.si();
        let flow = |side: Side| -> Option<f64> {
            let rows = self.resolved.port(side).flow.as_ref()?;
            let table: Vec<(f64, f64)> = rows.iter().map(|(lift, flow)| (lift.si(), flow.si())).collect();
            Some(held(&table, at))
        };
        flow(Side::Intake).zip(flow(Side::Exhaust)).filter(|(intake, _)| *intake > 0.0).map(|(i, e)| e / i)
    }

    fn separation(&mut self, duration: [f64; 2]) -> f64 {
        let given = &self.resolved.given;
        let mean = 0.5 * (duration[0] + duration[1]);
        let boosted = given.induction.kind == Some(Induction::Boosted);
        if given.is_diesel() {
            // Valves nearly flush with a flat deck leave no room for overlap lift.
            let deg = (mean + 22.0) / 2.0;
            return self.degrees("Lobe separation", deg.round().clamp(102.0, 112.0), "valves nearly flush with a flat crown leave room for little lift at overlap, and drive pressure above boost would only come back".to_owned());
        }
        let vacuum = given.target.idle_vacuum.map(|vacuum| vacuum.si() / INCH_MERCURY);
        let by_idle = vacuum
            .map_or(30.0, |vacuum| overlap_in(self.displacement, held(&OVERLAP_BY_VACUUM, vacuum)) - OVERLAP_TIGHT);
        let wet = given.primary.manifold == Some(ExhaustManifold::WaterJacketed);
        let by_water =
            if wet { overlap_in(self.displacement, REVERSION_OVERLAP) - OVERLAP_TIGHT } else { f64::INFINITY };
        let by_boost = if boosted { 0.0 } else { f64::INFINITY };
        let overlap = by_idle.min(by_water).min(by_boost);
        let (low, high) = match given.purpose.used_for {
            Some(Use::Circuit | Use::Strip) => (105.0, 112.0),
            Some(Use::Marine) => (111.0, 115.0),
            _ => (109.0, 115.0),
        };
        let by_area = self.separation_by_area().filter(|_| !boosted && !wet).unwrap_or(0.0);
        let by_overlap = (mean - overlap) / 2.0;
        let deg = by_overlap.max(by_area).ceil().clamp(low, high);
        // Where nobody asks for vacuum, an idle does not set it.
        let deg = if vacuum.is_none() && by_area > 0.0 { by_area.round().clamp(low, high) } else { deg };
        let why = match vacuum {
            _ if wet && by_water <= by_idle => {
                "little overlap, so that the exhaust's water is not drawn back; wide in the usual range of its use"
                    .to_owned()
            }
            Some(vacuum) => format!(
                "overlap that leaves {vacuum:.0} inHg at idle in {:.1} litres, within the usual range",
                self.displacement / 1000.0
            ),
            None if by_area > 0.0 => format!(
                "no vacuum is asked for: {:.0} less {:.2} for every cubic inch that an inch of intake valve has to fill, within the usual range",
                SEPARATION.0, SEPARATION.1
            ),
            None => "no vacuum is asked for: as close as is usual".to_owned(),
        };
        self.degrees("Lobe separation", deg, why)
    }

    /// Separation by displacement and the size of the intake valve, crank degrees.
    fn separation_by_area(&self) -> Option<f64> {
        let port = self.resolved.port(Side::Intake);
        let cylinders = self.resolved.given.engine.cylinders?;
        let each = self.displacement / cylinders.max(1.0) * 1e-6 / INCH.powi(3);
        // Two valves fill like one of as much area.
        let valve = port.valve_diameter?.as_inches() * port.valves.unwrap_or(1.0).sqrt();
        Some(SEPARATION.0 - SEPARATION.1 * each / valve)
    }

    fn centreline(&mut self, separation: f64) -> f64 {
        let given = &self.resolved.given;
        let advance = if given.purpose.is_raced() || given.is_diesel() { 2.0 } else { 4.0 };
        self.degrees(
            "Intake centreline",
            separation - advance,
            format!("{advance:.0} deg advanced: the chain stretches back, and an earlier closing keeps low speed"),
        )
    }

    /// Lobe lift: what a smooth lobe of this duration carries, or what the head still uses, whichever is less; m.
    fn lift(&mut self, side: Side, duration: f64) -> f64 {
        let (at_210, each) = match self.kind {
            LifterKind::HydraulicRoller => (0.310, 0.0017),
            LifterKind::SolidRoller => (0.305, 0.0019),
            LifterKind::HydraulicFlat | LifterKind::SolidFlat => (0.280, 0.0018),
        };
        let by_lobe = (at_210 + each * (duration - 210.0)).clamp(0.200, 0.450) * INCH;
        let ratio = self.resolved.train(side).rocker.ratio.unwrap_or(1.6);
        let by_head = self.useful_lift(side).map(|lift| lift / ratio);
        let rated = self.resolved.train(side).rocker.rated_lift.map(|lift| 0.95 * lift.si() / ratio);
        let found = by_head.map_or(by_lobe, |head| by_lobe.min(head)).min(rated.unwrap_or(f64::INFINITY));
        let lift = (found / INCH * 200.0).round() / 200.0 * INCH;
        let why = match by_head {
            Some(head) if head < by_lobe => {
                "the last .050 in of lift still brings 2 % of flow there, and no longer above it"
            }
            _ => "what a smooth lobe of this duration carries under this lifter",
        };
        let decision = match side {
            Side::Intake => "Intake lobe lift",
            Side::Exhaust => "Exhaust lobe lift",
        };
        let valve = shown(lift * ratio, Dimension::Length);
        let both = shown(lift, Dimension::Length);
        self.decide(
            decision,
            Shown {
                inch: format!("{} ({} at the valve)", both.inch, valve.inch),
                metric: format!("{} ({} at the valve)", both.metric, valve.metric),
            },
            why.to_owned(),
        );
        lift
    }

    /// Lift at the valve above which the flow table gains less than a judge of heads would pay for, m.
    fn useful_lift(&self, side: Side) -> Option<f64> {
        let rows = self.resolved.port(side).flow.as_ref()?;
        let table: Vec<(f64, f64)> = rows.iter().map(|(lift, flow)| (lift.si(), flow.si())).collect();
        let last = table.last()?.0;
        let gains = |lift: f64| held(&table, lift) / held(&table, lift - LAST_LIFT * INCH).max(1e-9) - 1.0;
        let steps = (0..200).map(|i| last - f64::from(i) * 0.005 * INCH).take_while(|lift| *lift > 0.2 * INCH);
        steps.into_iter().find(|lift| gains(*lift) > 1.25 * LAST_LIFT_FLOW)
    }
}

/// To the even degree, as cards are printed.
fn even(deg: f64) -> f64 {
    2.0 * (0.5 * deg).round()
}
