//! One candidate's document resolved to what the stages take.

use crate::cam::{
    CamDocument, Lobe, LobeCard, LobeSource, Phasing, height_050, lobe_of_card, lobe_of_points, read_cam,
};
use crate::clearance::{CrownFrame, ValveFrame, ValveTravel, read_crown, read_second_valve, read_valve};
use crate::document::{CandidateView, Ledger, Missing, Node, Side};
use crate::engine::{Cylinder, read_cylinder};
use crate::quantity::{Length, Pressure, Speed};
use crate::train::running::RunningTrain;
use crate::train::{MovingMass, Spring, ValveLift, read_moving_mass, read_spring, read_valve_lift};
use std::sync::Arc;

use super::stages::{LobeResult, Stages, key};

/// Why a stage has no result.
#[derive(Debug, Clone, PartialEq)]
pub struct Gap {
    /// As a sentence.
    pub reason: String,
    /// Fields that would close it.
    pub needs: Vec<String>,
}

impl From<Missing> for Gap {
    fn from(missing: Missing) -> Self {
        Self { reason: format!("needs {}", missing.0.join(", ")), needs: missing.0 }
    }
}

/// A resolved part or why it is not there.
pub type Part<T> = Result<T, Gap>;

/// Everything of one side.
#[derive(Debug, Clone)]
pub struct SideInputs {
    /// Intake or exhaust.
    pub side: Side,
    /// The lobe.
    pub lobe: Part<Arc<LobeResult>>,
    /// Stands for the lobe in the keys of later stages.
    pub lobe_key: String,
    /// The card it is made from; `None` when it was measured or is not known.
    pub card: Option<LobeCard>,
    /// Heights the card was checked at.
    pub card_heights: Vec<crate::quantity::Length>,
    /// Ratio and lash.
    pub lift: Part<ValveLift>,
    /// Spring package.
    pub spring: Part<Spring>,
    /// What the train makes of the lobe while it runs slowly.
    pub running: Part<Arc<RunningTrain>>,
    /// Moving mass.
    pub mass: Part<MovingMass>,
    /// Valves that share the port, each with its own spring.
    pub valves: f64,
    /// Closed valve in the frame.
    pub valve: Part<ValveFrame>,
    /// The port's other valve, where its place is given.
    pub second_valve: Option<ValveFrame>,
    /// Crown under it.
    pub crown: Part<CrownFrame>,
}

/// What breathing found that limits ask for, greatest over the speeds.
#[derive(Debug, Clone, PartialEq)]
pub struct Computed {
    /// Octane number at the edge of knock, for a spark engine.
    pub octane_needed: Option<f64>,
    /// Highest cylinder pressure, Pa.
    pub peak_pressure: f64,
    /// Highest cylinder pressure as the exhaust valve opens, Pa.
    pub opening_pressure: f64,
    /// Manifold vacuum at idle, Pa, where it was computed; zero when it does not idle.
    pub idle_vacuum: Option<f64>,
    /// Manifold and drive pressure, gauge, for a boosted engine.
    pub boost: Option<(Pressure, Pressure)>,
}

/// Everything of one candidate.
pub struct Inputs<'a> {
    /// Cylinder and crank.
    pub cylinder: Part<Cylinder>,
    /// Where the lobes stand.
    pub phasing: Part<Phasing>,
    /// Intake side.
    pub intake: SideInputs,
    /// Exhaust side.
    pub exhaust: SideInputs,
    /// Greatest manifold and drive pressure over the boost levels; `None` without levels.
    pub boost: Option<(Pressure, Pressure)>,
    /// What breathing found, when it was computed.
    pub computed: Option<Computed>,
    /// Shift point plus overspeed.
    pub top_speed: Option<Speed>,
    /// The candidate's own node.
    pub candidate: Node<'a>,
    /// The engine as this candidate sees it.
    pub engine: Node<'a>,
    /// The target as this candidate sees it.
    pub target: Node<'a>,
    /// What a dyno measured of this candidate.
    pub pull: Node<'a>,
    /// What was fitted to a pull.
    pub calibration: Node<'a>,
    /// The shop's own limits.
    pub shop_limits: Vec<Node<'a>>,
}

impl<'a> Inputs<'a> {
    /// Resolves `view`; lobes come from `stages`.
    pub fn resolve(view: &'a CandidateView, ledger: &'a Ledger, stages: &Stages) -> Self {
        let (engine, target, candidate) = (view.engine(ledger), view.target(ledger), view.node(ledger));
        let train = candidate.child("train");
        let cam = read_cam(&candidate.child("cam"), &train);
        let CamDocument { intake, exhaust, phasing } = cam;
        let side = |side, source| resolve_side(side, source, &engine, &train, stages);
        Self {
            cylinder: read_cylinder(&engine).map_err(Gap::from),
            phasing: phasing.map_err(Gap::from),
            intake: side(Side::Intake, intake),
            exhaust: side(Side::Exhaust, exhaust),
            boost: read_boost(&target),
            computed: None,
            top_speed: read_top_speed(&target),
            candidate,
            engine,
            target,
            pull: view.pull(ledger),
            calibration: view.calibration(ledger),
            shop_limits: view.shop_limits(ledger),
        }
    }

    /// One side.
    pub const fn side(&self, side: Side) -> &SideInputs {
        match side {
            Side::Intake => &self.intake,
            Side::Exhaust => &self.exhaust,
        }
    }

    /// The train node seen from `side`.
    pub fn train(&self, side: Side, part: &str) -> Node<'a> {
        self.candidate.child("train").child(part).side(side)
    }

    /// The port of `side`.
    pub fn port(&self, side: Side) -> Node<'a> {
        self.engine.child(side.key())
    }

    /// Valve motion of `side` on the crank.
    pub fn travel(&self, side: Side) -> Part<ValveTravel<'_>> {
        let inputs = self.side(side);
        let lobe = inputs.lobe()?;
        let lift = inputs.lift.clone()?;
        let phasing = self.phasing.clone()?;
        let real = inputs.running.as_ref().ok().map(AsRef::as_ref);
        Ok(ValveTravel { lobe, lift, full_lift_at: full_lift_at(side, &phasing, lobe), real })
    }
}

/// Crank degrees from firing top dead centre to full lift: the centre of the .050 events, less the
/// asymmetry of the lobe.
pub fn full_lift_at(side: Side, phasing: &Phasing, lobe: &Lobe) -> f64 {
    let later = 2.0 * lobe.centre_of_events(height_050()).unwrap_or(0.0);
    match side {
        Side::Intake => 360.0 + phasing.intake_centreline - later,
        Side::Exhaust => 360.0 - phasing.exhaust_centreline - later,
    }
}

impl SideInputs {
    /// Most lift of rigid parts, by the nominal or the true ratio, lash taken off.
    pub fn most_lift(&self) -> Part<Length> {
        let (lobe, lift) = (self.lobe()?, self.lift.clone()?);
        let real = self.running.as_ref().map_or(0.0, |running| running.rigid(lobe.lift().si()));
        Ok(Length::from_si(lift.net(lobe).si().max(real)))
    }

    /// The lobe or why there is none.
    pub fn lobe(&self) -> Part<&Lobe> {
        lobe_of(self.side, &self.lobe)
    }
}

fn resolve_side(
    side: Side,
    source: Result<LobeSource, Missing>,
    engine: &Node<'_>,
    train: &Node<'_>,
    stages: &Stages,
) -> SideInputs {
    let port = engine.child(side.key());
    let lobe_key = key(&source);
    let card = match &source {
        Ok(LobeSource::Card(card)) => Some(card.clone()),
        _ => None,
    };
    let card_heights =
        card.as_ref().map_or_else(Vec::new, |card| card.closing.iter().map(|check| check.height).collect());
    let spring = read_spring(train, side).map_err(Gap::from);
    let spring_mass = spring.as_ref().ok().and_then(|s| s.mass);
    let valves = port.number("valves").unwrap_or(1.0);
    let valve = read_valve(&port).map_err(Gap::from);
    let second_valve = valve.as_ref().ok().filter(|_| valves > 1.0).and_then(|first| read_second_valve(&port, first));
    let lobe = source.map_err(Gap::from).map(|source| lobe(&source, &lobe_key, stages));
    let lift = read_valve_lift(train, side).map_err(Gap::from);
    let running = lobe_of(side, &lobe).and_then(|lobe| {
        let lift = lift.as_ref().map_err(Clone::clone)?;
        Ok(Arc::new(RunningTrain::read(train, side, (lift, lobe), spring.as_ref().ok(), valves)))
    });
    SideInputs {
        side,
        running,
        lobe,
        lobe_key,
        card,
        card_heights,
        lift,
        mass: read_moving_mass(train, side, spring_mass, valves).map_err(Gap::from),
        spring,
        valves,
        valve,
        second_valve,
        crown: read_crown(&port).map_err(Gap::from),
    }
}

/// A side's lobe or why there is none.
fn lobe_of(side: Side, lobe: &Part<Arc<LobeResult>>) -> Part<&Lobe> {
    match lobe {
        Ok(result) => match result.as_ref() {
            Ok(lobe) => Ok(lobe),
            Err(reason) => Err(Gap { reason: format!("{} lobe: {reason}", side.key()), needs: Vec::new() }),
        },
        Err(gap) => Err(gap.clone()),
    }
}

fn lobe(source: &LobeSource, key: &str, stages: &Stages) -> Arc<LobeResult> {
    stages.lobes.get(key.to_owned(), || match source {
        LobeSource::Card(card) => lobe_of_card(card).map_err(|refusal| refusal.to_string()),
        LobeSource::Measured(points) => lobe_of_points(points).map_err(|refusal| refusal.to_string()),
    })
}

fn read_boost(target: &Node<'_>) -> Option<(Pressure, Pressure)> {
    let levels = target.children("boost");
    let most = |key: &str| levels.iter().filter_map(|l| l.quantity::<Pressure>(key)).map(Pressure::si).reduce(f64::max);
    let manifold = most("manifold")?;
    // Drive pressure that nobody measured is taken for that of the manifold (assumed; breathing works it out).
    Some((Pressure::from_si(manifold), Pressure::from_si(most("drive").unwrap_or(manifold))))
}

fn read_top_speed(target: &Node<'_>) -> Option<Speed> {
    let shift: Speed = target.quantity("shift_at")?;
    let over: Speed = target.quantity("overspeed_by")?;
    Some(Speed::from_si(shift.si() + over.si()))
}
