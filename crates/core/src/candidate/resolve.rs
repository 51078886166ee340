//! One candidate resolved: what the document gives of it, and what the first stages make of that. Numbers and enums only;
//! [`Resolved::with`] changes some of them and resolves again, which is all that rules, remedies, sensitivity and search
//! need of a document.

use crate::cam::{
    Lobe, LobeCard, LobeSource, Phasing, height_050, lobe_of_card, lobe_of_points, read_lobe, read_phasing,
};
use crate::clearance::{CrownFrame, ValveFrame, ValveTravel, read_crown, read_second_valve, read_valve};
use crate::document::{CandidateView, Ledger, Side};
use crate::engine::{Cylinder, read_cylinder};
use crate::given::{Given, Missing, Place, Port, Source, Train};
use crate::quantity::{Length, Pressure, Speed};
use crate::train::running::RunningTrain;
use crate::train::{MovingMass, Spring, ValveLift, read_moving_mass, read_spring, read_valve_lift};
use std::sync::Arc;

use super::stages::{Key, LobeResult, Stages, key};

/// Why a stage has no result.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Gap {
    /// As a sentence; empty where all there is to say is what is missing.
    pub reason: String,
    /// Fields that would close it.
    pub needs: Vec<Place>,
}

impl Gap {
    /// A gap that no field would close.
    pub fn because(reason: impl Into<String>) -> Self {
        Self { reason: reason.into(), needs: Vec::new() }
    }

    /// A gap that these fields would close.
    pub const fn needing(needs: Vec<Place>) -> Self {
        Self { reason: String::new(), needs }
    }
}

/// Everything that several parts lack, at once: needs never come in rounds.
///
/// # Errors
/// All gaps as one, each reason and each field once.
pub fn together<const N: usize>(gaps: [Option<Gap>; N]) -> Part<()> {
    let mut all: Option<Gap> = None;
    for gap in gaps.into_iter().flatten() {
        let Some(whole) = &mut all else {
            all = Some(gap);
            continue;
        };
        if !gap.reason.is_empty() && !whole.reason.contains(&gap.reason) {
            let reasons = [std::mem::take(&mut whole.reason), gap.reason];
            whole.reason = reasons.into_iter().filter(|reason| !reason.is_empty()).collect::<Vec<_>>().join("; ");
        }
        whole.needs.extend(gap.needs.iter().filter(|place| !whole.needs.contains(place)).copied().collect::<Vec<_>>());
    }
    all.map_or(Ok(()), Err)
}

/// What a part lacks.
pub fn lack<T>(part: &Part<T>) -> Option<Gap> {
    part.as_ref().err().cloned()
}

impl From<Missing> for Gap {
    fn from(missing: Missing) -> Self {
        Self::needing(missing.0)
    }
}

/// A resolved part or why it is not there.
pub type Part<T> = Result<T, Gap>;

/// What the first stages make of one side.
#[derive(Debug, Clone)]
pub struct ResolvedSide {
    /// Intake or exhaust.
    pub side: Side,
    /// The lobe.
    pub lobe: Part<Arc<LobeResult>>,
    /// Stands for the lobe in the keys of later stages.
    pub lobe_key: Key,
    /// The card it is made from; `None` when it was measured or is not known.
    pub card: Option<LobeCard>,
    /// Heights the card was checked at.
    pub card_heights: Vec<Length>,
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

/// One candidate in numbers.
#[derive(Debug, Clone)]
pub struct Resolved {
    /// What the document gives.
    pub given: Given,
    /// Cylinder and crank.
    pub cylinder: Part<Cylinder>,
    /// Where the lobes stand.
    pub phasing: Part<Phasing>,
    /// Intake and exhaust.
    sides: [ResolvedSide; 2],
}

impl Resolved {
    /// Resolves what is given; lobes come from `stages`.
    pub fn new(given: Given, stages: &Stages) -> Self {
        Self {
            cylinder: read_cylinder(&given.engine).map_err(Gap::from),
            phasing: read_phasing(&given).map_err(Gap::from),
            sides: Side::BOTH.map(|side| resolve_side(&given, side, stages)),
            given,
        }
    }

    /// Resolves the candidate of a document, whatever its defaults are noted for.
    pub fn of(view: &CandidateView<'_>, stages: &Stages) -> Self {
        Self::new(Given::read(&Source::new(view, &Ledger::default())), stages)
    }

    /// The same candidate with some numbers changed, SI for quantities; `None` when one of them is not given.
    pub fn with(&self, changes: &[(Place, f64)], stages: &Stages) -> Option<Self> {
        let mut given = self.given.clone();
        for (place, number) in changes {
            given.set(*place, *number)?;
        }
        Some(Self::new(given, stages))
    }

    /// The same with its cam turned forward by so many crank degrees; back where negative.
    #[must_use]
    pub fn turned(&self, deg: f64) -> Self {
        let phasing = self.phasing.clone().map(|phasing| phasing.advanced(deg));
        Self { phasing, ..self.clone() }
    }

    /// One side.
    pub const fn side(&self, side: Side) -> &ResolvedSide {
        match side {
            Side::Intake => &self.sides[0],
            Side::Exhaust => &self.sides[1],
        }
    }

    /// The train of `side` as given.
    pub fn train(&self, side: Side) -> &Train {
        self.given.train(side)
    }

    /// The port of `side` as given.
    pub fn port(&self, side: Side) -> &Port {
        self.given.port(side)
    }

    /// Greatest manifold and drive pressure over the plan's boost levels; `None` without levels.
    pub fn boost(&self) -> Option<(Pressure, Pressure)> {
        let rows = self.given.target.boost.as_ref()?;
        let manifold = rows.iter().map(|row| row.manifold.si()).reduce(f64::max)?;
        // Drive pressure that nobody measured is taken for that of the manifold (assumed; breathing works it out).
        let drive = rows.iter().filter_map(|row| row.drive).map(Pressure::si).reduce(f64::max).unwrap_or(manifold);
        Some((Pressure::from_si(manifold), Pressure::from_si(drive)))
    }

    /// Shift point plus overspeed.
    pub fn top_speed(&self) -> Option<Speed> {
        let target = &self.given.target;
        Some(Speed::from_si(target.shift_at?.si() + target.overspeed_by?.si()))
    }

    /// Valve motion of `side` on the crank.
    ///
    /// # Errors
    /// What lobe, lift or phasing lack.
    pub fn travel(&self, side: Side) -> Part<ValveTravel<'_>> {
        let own = self.side(side);
        together([lack(&own.lobe()), lack(&own.lift), lack(&self.phasing)])?;
        let (lobe, lift, phasing) = (own.lobe()?, own.lift.clone()?, self.phasing.clone()?);
        let real = own.running.as_ref().ok().map(AsRef::as_ref);
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

impl ResolvedSide {
    /// Most lift of rigid parts, by the nominal or the true ratio, lash taken off.
    ///
    /// # Errors
    /// What lobe or lift lack.
    pub fn most_lift(&self) -> Part<Length> {
        together([lack(&self.lobe()), lack(&self.lift)])?;
        let (lobe, lift) = (self.lobe()?, self.lift.clone()?);
        let real = self.running.as_ref().map_or(0.0, |running| running.rigid(lobe.lift().si()));
        Ok(Length::from_si(lift.net(lobe).si().max(real)))
    }

    /// The lobe or why there is none.
    ///
    /// # Errors
    /// What the card lacks, or why no smooth lobe carries it.
    pub fn lobe(&self) -> Part<&Lobe> {
        lobe_of(self.side, &self.lobe)
    }
}

fn resolve_side(given: &Given, side: Side, stages: &Stages) -> ResolvedSide {
    let (port, pocket, train) = (given.port(side), given.pocket(side), given.train(side));
    let source = read_lobe(given, side);
    let lobe_key = key(&source);
    let card = match &source {
        Ok(LobeSource::Card(card)) => Some(card.clone()),
        _ => None,
    };
    let card_heights =
        card.as_ref().map_or_else(Vec::new, |card| card.closing.iter().map(|check| check.height).collect());
    let spring = read_spring(&train.spring).map_err(Gap::from);
    let spring_mass = spring.as_ref().ok().and_then(|s| s.mass);
    let valves = port.valves.unwrap_or(1.0);
    let valve = read_valve(port, pocket.is_given).map_err(Gap::from);
    let second_valve = valve.as_ref().ok().filter(|_| valves > 1.0).and_then(|first| read_second_valve(port, first));
    let lobe = source.map_err(Gap::from).map(|source| lobe(&source, lobe_key, stages));
    let lift = read_valve_lift(train).map_err(Gap::from);
    let running = lobe_of(side, &lobe).and_then(|lobe| {
        let lift = lift.as_ref().map_err(Clone::clone)?;
        Ok(Arc::new(RunningTrain::read(train, (lift, lobe), spring.as_ref().ok(), valves)))
    });
    ResolvedSide {
        side,
        running,
        lobe,
        lobe_key,
        card,
        card_heights,
        lift,
        mass: read_moving_mass(train, spring_mass, valves).map_err(Gap::from),
        spring,
        valves,
        valve,
        second_valve,
        crown: read_crown(port, pocket).map_err(Gap::from),
    }
}

/// A side's lobe or why there is none.
fn lobe_of(side: Side, lobe: &Part<Arc<LobeResult>>) -> Part<&Lobe> {
    match lobe {
        Ok(result) => match result.as_ref() {
            Ok(lobe) => Ok(lobe),
            Err(reason) => Err(Gap::because(format!("{} lobe: {reason}", side.key()))),
        },
        Err(gap) => Err(gap.clone()),
    }
}

fn lobe(source: &LobeSource, key: Key, stages: &Stages) -> Arc<LobeResult> {
    stages.lobes.get(key, || match source {
        LobeSource::Card(card) => lobe_of_card(card).map_err(|refusal| refusal.to_string()),
        LobeSource::Measured(profile) => lobe_of_points(profile.points()).map_err(|refusal| refusal.to_string()),
    })
}
