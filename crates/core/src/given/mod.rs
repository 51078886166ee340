//! What the document gives of one candidate, in SI and as enums: no texts to parse, no nodes, cheap to copy, and every
//! number can be changed by its place. Everything after the document is computed from this.

mod fields;
mod growth;
mod objects;
mod place;
mod value;

use fields::Fields;
pub use growth::WitnessMark;
use growth::{has_budget, read_growth, read_marks};
pub use objects::{
    Ambient, Bridge, CalibrationPart, Cam, ClayPart, CoilPart, Collector, Engine, EventsPart, GrowthPart, HeightsPart,
    InductionPart, LiftReadings, Lifter, LobePart, Matching, PocketPart, Port, PreloadWork, Primary, PullPart, Purpose,
    PushrodPart, RetainerPart, RockerPart, Rules, Runner, SpringPart, Target, TrainFitPart, ValvePart,
};
pub(crate) use place::need;
pub use place::{Missing, Needs, Of, Place};
pub use value::{BoostRow, FlankChecks, Fuelling, Profile, Rows, Value};

use crate::document::{CandidateView, Ledger, Node, Side, limit_figure};
use crate::quantity::Money;
use crate::words::{CamDrive, Word};
use std::sync::Arc;

/// The train of one side, plain fields and overrides already one.
#[derive(Debug, Clone, PartialEq)]
pub struct Train {
    /// What rides on the lobe.
    pub lifter: Lifter,
    /// Between lifter and rocker.
    pub pushrod: PushrodPart,
    /// Work that moves the preload.
    pub work: PreloadWork,
    /// Multiplies the lobe's lift.
    pub rocker: RockerPart,
    /// What opens two valves.
    pub bridge: Bridge,
    /// The valve.
    pub valve: ValvePart,
    /// Lift by dial.
    pub readings: LiftReadings,
    /// Retainer and locks.
    pub retainer: RetainerPart,
    /// The spring package.
    pub spring: SpringPart,
    /// Installed heights of every valve.
    pub heights: HeightsPart,
}

/// One price, said once for both sides where they share it.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Price {
    /// Of what.
    pub of: Of,
    /// As seen from.
    pub side: Side,
    /// How much.
    pub amount: Money,
}

/// Everything the document gives of one candidate.
#[derive(Debug, Clone, PartialEq)]
pub struct Given {
    /// What it is for.
    pub purpose: Purpose,
    /// The plan.
    pub target: Target,
    /// What the class allows.
    pub rules: Rules,
    /// The air.
    pub ambient: Ambient,
    /// What candidates share, as this one has it.
    pub engine: Engine,
    /// What the runners breathe from.
    pub induction: InductionPart,
    /// Intake and exhaust port.
    pub ports: [Port; 2],
    /// Intake and exhaust pocket.
    pub pockets: [PocketPart; 2],
    /// From plenum to head.
    pub runner: Runner,
    /// From head to collector.
    pub primary: Primary,
    /// Where primaries meet.
    pub collector: Collector,
    /// The camshaft.
    pub cam: Cam,
    /// Its events, where they are given.
    pub events: EventsPart,
    /// Its lobes.
    pub lobes: [LobePart; 2],
    /// Clay under the valves.
    pub clay: [ClayPart; 2],
    /// Intake and exhaust train.
    pub trains: [Train; 2],
    /// Measured pushrods and places.
    pub matching: Matching,
    /// What a dyno measured of this candidate.
    pub pull: PullPart,
    /// What was fitted to a pull.
    pub calibration: CalibrationPart,
    /// What measured motion says of the train.
    pub train_fit: TrainFitPart,
    /// What a gap loses on the way to speed.
    pub growth: GrowthPart,
    /// What running engines showed of it.
    pub witness: Arc<[WitnessMark]>,
    /// Whether every term of the growth that nobody can compute is given, or a running engine showed it.
    pub has_growth_budget: bool,
    /// Prices of cam and parts.
    pub prices: Arc<[Price]>,
    /// The shop's own limits.
    pub own_limits: Arc<[OwnLimit]>,
}

/// A shop's own figure for a limit.
#[derive(Debug, Clone, PartialEq)]
pub struct OwnLimit {
    /// Identifier of the rule.
    pub limit: Arc<str>,
    /// Which valve; both when absent.
    pub side: Option<Side>,
    /// At least, SI or a plain number.
    pub min: Option<f64>,
    /// At most.
    pub max: Option<f64>,
    /// Why.
    pub reason: Arc<str>,
}

/// Keys of one object, each with a figure.
type Keyed = Vec<(&'static str, f64)>;

/// Parts of the train that carry a price.
const PRICED: [Of; 6] = [Of::Lifter, Of::Pushrod, Of::Rocker, Of::Valve, Of::Retainer, Of::Spring];

/// The nodes of one candidate's document: what places are read from and worded by.
pub struct Source<'a> {
    build: Node<'a>,
    engine: Node<'a>,
    target: Node<'a>,
    candidate: Node<'a>,
    pull: Node<'a>,
    calibration: Node<'a>,
    own_limits: Vec<Node<'a>>,
}

impl<'a> Source<'a> {
    /// The nodes of `view`; defaults that are used are noted in `ledger`.
    pub fn new(view: &'a CandidateView<'_>, ledger: &'a Ledger) -> Self {
        Self {
            build: view.build(ledger),
            engine: view.engine(ledger),
            target: view.target(ledger),
            candidate: view.node(ledger),
            pull: view.pull(ledger),
            calibration: view.calibration(ledger),
            own_limits: view.shop_limits(ledger),
        }
    }

    /// The object `of` as `side` sees it.
    pub fn node(&self, of: Of, side: Side) -> Node<'a> {
        let port = || self.engine.child(side.key());
        let cam = || self.candidate.child("cam");
        let part = |key: &str| self.candidate.child("train").child(key).side(side);
        match of {
            Of::Build => self.build.clone(),
            Of::Target => self.target.clone(),
            Of::Rules => self.target.child("rules"),
            Of::Ambient => self.target.child("ambient"),
            Of::Engine => self.engine.clone(),
            Of::Induction => self.engine.child("induction"),
            Of::Port => port(),
            Of::Pocket => port().child("pocket"),
            Of::Collector => self.engine.child("exhaust").child("collector"),
            Of::Cam => cam(),
            Of::Events => cam().child("events_050"),
            Of::Lobe => cam().child(side.key()),
            Of::Clay => self.candidate.child("clay").child(side.key()),
            Of::Lifter => part("lifter"),
            Of::Pushrod => part("pushrod"),
            Of::PreloadWork => part("preload_work"),
            Of::Matching => part("matching"),
            Of::Rocker => part("rocker"),
            Of::Bridge => part("bridge"),
            Of::Valve => part("valve"),
            Of::Readings => part("readings"),
            Of::Retainer => part("retainer"),
            Of::Spring => part("spring"),
            Of::Heights => part("heights"),
            Of::Pull => self.pull.clone(),
            Of::Calibration => self.calibration.clone(),
            Of::TrainFit => self.build.child("train_fit"),
            Of::Growth => self.build.child("growth"),
        }
    }

    /// Identifier of the candidate.
    pub fn candidate_id(&self) -> &str {
        self.candidate.word("id").unwrap_or_default()
    }

    /// Whether `field`, a candidate by its identifier or its place, is the field at `place`; what a candidate changes of the
    /// engine is that field of the engine too.
    pub fn is_at(&self, place: Place, field: &str) -> bool {
        let path = self.path(place);
        let Some((_, rest)) = path.strip_prefix("candidates[").and_then(|path| path.split_once(']')) else {
            return path == field;
        };
        let changed = rest.strip_prefix(".changes.");
        let own = field.strip_prefix("candidates[").and_then(|field| field.split_once(']'));
        changed.is_some_and(|own| own == field)
            || own.is_some_and(|(name, own)| {
                own == rest && (name == self.candidate_id() || path.starts_with(&format!("candidates[{name}]")))
            })
    }

    /// Path of a place in the document, where it stands or would stand.
    pub fn path(&self, place: Place) -> String {
        self.node(place.of, place.side).path_of(place.key)
    }
}

impl Given {
    /// What cam and parts cost, as far as prices are given, in the money of the document.
    pub fn money(&self) -> f64 {
        // A sum of nothing is minus nothing otherwise.
        self.prices.iter().map(|price| price.amount.si()).sum::<f64>() + 0.0
    }

    /// Reads one candidate.
    pub fn read(source: &Source<'_>) -> Self {
        let of = |of: Of| source.node(of, Side::Intake);
        let sides = Side::BOTH;
        Self {
            purpose: Purpose::read(&of(Of::Build)),
            target: Target::read(&of(Of::Target), Side::Intake),
            rules: Rules::read(&of(Of::Rules), Side::Intake),
            ambient: Ambient::read(&of(Of::Ambient), Side::Intake),
            engine: Engine::read(&of(Of::Engine), Side::Intake),
            induction: InductionPart::read(&of(Of::Induction), Side::Intake),
            ports: sides.map(|side| Port::read(&source.node(Of::Port, side), side)),
            pockets: sides.map(|side| PocketPart::read(&source.node(Of::Pocket, side), side)),
            runner: Runner::read(&of(Of::Port), Side::Intake),
            primary: Primary::read(&source.node(Of::Port, Side::Exhaust), Side::Exhaust),
            collector: Collector::read(&of(Of::Collector), Side::Intake),
            cam: Cam::read(&of(Of::Cam), Side::Intake),
            events: EventsPart::read(&of(Of::Events), Side::Intake),
            lobes: sides.map(|side| LobePart::read(&source.node(Of::Lobe, side), side)),
            clay: sides.map(|side| ClayPart::read(&source.node(Of::Clay, side), side)),
            trains: sides.map(|side| read_train(source, side)),
            matching: Matching::read(&of(Of::Matching), Side::Intake),
            pull: PullPart::read(&of(Of::Pull), Side::Intake),
            calibration: CalibrationPart::read(&of(Of::Calibration), Side::Intake),
            train_fit: TrainFitPart::read(&of(Of::TrainFit), Side::Intake),
            growth: read_growth(
                &of(Of::Growth),
                CamDrive::from_word(of(Of::Engine).word("cam_drive").unwrap_or_default()),
            ),
            witness: read_marks(&of(Of::Growth)),
            has_growth_budget: has_budget(&of(Of::Growth)),
            prices: read_prices(source),
            own_limits: source.own_limits.iter().filter_map(read_own_limit).collect(),
        }
    }

    /// The port of `side`.
    pub fn port(&self, side: Side) -> &Port {
        &self.ports[side.index()]
    }

    /// The pocket under the valve of `side`.
    pub fn pocket(&self, side: Side) -> &PocketPart {
        &self.pockets[side.index()]
    }

    /// The lobe of `side`.
    pub fn lobe(&self, side: Side) -> &LobePart {
        &self.lobes[side.index()]
    }

    /// The clay under the valve of `side`.
    pub fn clay(&self, side: Side) -> &ClayPart {
        &self.clay[side.index()]
    }

    /// The train of `side`.
    pub fn train(&self, side: Side) -> &Train {
        &self.trains[side.index()]
    }

    /// Whether it burns diesel by compression.
    pub fn is_diesel(&self) -> bool {
        self.engine.combustion == Some(crate::words::Combustion::Diesel)
    }

    /// Every field that is one number, with its place.
    pub fn numbers(&self) -> Vec<(Place, f64)> {
        self.every(&mut |object| object.numbers())
    }

    /// Every field that can spread, with its place and how large it is: numbers, and tables of loads and angles.
    pub fn sizes(&self) -> Vec<(Place, f64)> {
        self.every(&mut |object| object.sizes())
    }

    fn every(&self, ask: &mut dyn FnMut(&mut dyn Fields) -> Keyed) -> Vec<(Place, f64)> {
        let mut found = Vec::new();
        // Asking changes nothing, but is of the same list as changing.
        let mut copy = self.clone();
        for side in Side::BOTH {
            for of in Of::ALL {
                if side == Side::Exhaust && !of.is_sided() {
                    continue;
                }
                let numbers = copy.each(of, side, ask);
                found.extend(numbers.into_iter().flatten().map(|(key, number)| (Place::new(of, key, side), number)));
            }
        }
        found
    }

    /// Changes the number at `place`; `None` when there is none.
    pub fn set(&mut self, place: Place, number: f64) -> Option<()> {
        let done = self.each(place.of, place.side, &mut |object| object.set(place.key, number));
        done.into_iter().flatten().next()
    }

    /// Moves what stands at `place` by so much, SI; `None` when it is not given or cannot spread.
    pub fn shift(&mut self, place: Place, by: f64) -> Option<()> {
        let done = self.each(place.of, place.side, &mut |object| object.shift(place.key, by));
        done.into_iter().flatten().next()
    }

    /// The number at `place`.
    pub fn number(&self, place: Place) -> Option<f64> {
        let mut copy = self.clone();
        let found = copy.each(place.of, place.side, &mut |object| object.numbers());
        found.into_iter().flatten().find(|(key, _)| *key == place.key).map(|(_, number)| number)
    }

    /// What `ask` answers of every struct that holds fields of `of`.
    fn each<T>(&mut self, of: Of, side: Side, ask: &mut dyn FnMut(&mut dyn Fields) -> T) -> Vec<T> {
        let i = side.index();
        let train = &mut self.trains[i];
        match of {
            Of::Build => vec![ask(&mut self.purpose)],
            Of::Target => vec![ask(&mut self.target)],
            Of::Rules => vec![ask(&mut self.rules)],
            Of::Ambient => vec![ask(&mut self.ambient)],
            Of::Engine => vec![ask(&mut self.engine)],
            Of::Induction => vec![ask(&mut self.induction)],
            Of::Port => {
                let pipe: &mut dyn Fields = match side {
                    Side::Intake => &mut self.runner,
                    Side::Exhaust => &mut self.primary,
                };
                vec![ask(&mut self.ports[i]), ask(pipe)]
            }
            Of::Pocket => vec![ask(&mut self.pockets[i])],
            Of::Collector => vec![ask(&mut self.collector)],
            Of::Cam => vec![ask(&mut self.cam)],
            Of::Events => vec![ask(&mut self.events)],
            Of::Lobe => vec![ask(&mut self.lobes[i])],
            Of::Clay => vec![ask(&mut self.clay[i])],
            Of::Lifter => vec![ask(&mut train.lifter)],
            Of::Pushrod => vec![ask(&mut train.pushrod)],
            Of::PreloadWork => vec![ask(&mut train.work)],
            Of::Matching => vec![ask(&mut self.matching)],
            Of::Rocker => vec![ask(&mut train.rocker)],
            Of::Bridge => vec![ask(&mut train.bridge)],
            Of::Valve => vec![ask(&mut train.valve)],
            Of::Readings => vec![ask(&mut train.readings)],
            Of::Retainer => vec![ask(&mut train.retainer)],
            Of::Spring => vec![ask(&mut train.spring)],
            Of::Heights => vec![ask(&mut train.heights)],
            Of::Pull => vec![ask(&mut self.pull)],
            Of::Calibration => vec![ask(&mut self.calibration)],
            Of::TrainFit => vec![ask(&mut self.train_fit)],
            Of::Growth => vec![ask(&mut self.growth)],
        }
    }
}

fn read_train(source: &Source<'_>, side: Side) -> Train {
    let node = |of: Of| source.node(of, side);
    Train {
        lifter: Lifter::read(&node(Of::Lifter), side),
        pushrod: PushrodPart::read(&node(Of::Pushrod), side),
        work: PreloadWork::read(&node(Of::PreloadWork), side),
        rocker: RockerPart::read(&node(Of::Rocker), side),
        bridge: Bridge::read(&node(Of::Bridge), side),
        valve: ValvePart::read(&node(Of::Valve), side),
        readings: LiftReadings::read(&node(Of::Readings), side),
        retainer: RetainerPart::read(&node(Of::Retainer), side),
        spring: SpringPart::read(&node(Of::Spring), side),
        heights: HeightsPart::read(&node(Of::Heights), side),
    }
}

/// One price for both sides, or one of each side that has its own.
fn read_prices(source: &Source<'_>) -> Arc<[Price]> {
    let mut seen: Vec<String> = Vec::new();
    let mut found = Vec::new();
    let places = PRICED.iter().flat_map(|of| Side::BOTH.map(|side| Place::new(*of, "price", side)));
    for place in std::iter::once(Place::new(Of::Cam, "price", Side::Intake)).chain(places) {
        let node = source.node(place.of, place.side);
        let (path, amount) = (node.path_of("price"), node.quantity::<Money>("price"));
        if let Some(amount) = amount.filter(|_| !seen.contains(&path)) {
            seen.push(path);
            found.push(Price { of: place.of, side: place.side, amount });
        }
    }
    found.into()
}

/// A shop's own limit; consistency has checked its texts.
fn read_own_limit(node: &Node<'_>) -> Option<OwnLimit> {
    let limit = node.word("limit")?;
    let bound = |key: &str| limit_figure(limit, node.word(key)?);
    let side = node.word("side").and_then(|word| Side::BOTH.into_iter().find(|side| side.key() == word));
    let reason = node.word("reason").unwrap_or_default().into();
    Some(OwnLimit { limit: limit.into(), side, min: bound("at_least"), max: bound("at_most"), reason })
}
