//! Preload and lash of a train: what machining does to them, how lash grows with heat, and which pushrod goes where.

use super::compliance::Metal;
use crate::given::PreloadWork;
use crate::quantity::Angle;
use crate::words::{PreloadSchool, ValveMaterial};
use pathfinding::kuhn_munkres::kuhn_munkres_min;
use pathfinding::matrix::Matrix;

/// Expansion for a kelvin of cast iron and cast aluminium [handbooks; from memory].
const IRON: f64 = 11e-6;
const ALUMINIUM: f64 = 22e-6;
/// How much hotter than cold block, head and pushrod run, K, and the share of a pushrod's length that stands in the head
/// (assumed).
const BLOCK_HEAT: f64 = 70.0;
const HEAD_HEAT: f64 = 85.0;
const PUSHROD_HEAT: f64 = 70.0;
const HEAD_SHARE: f64 = 0.45;

/// What a piece of work does to the preload, m; positive adds.
#[derive(Debug, Clone, PartialEq)]
pub struct Work {
    /// Field of the document.
    pub key: &'static str,
    /// m.
    pub change: f64,
}

/// What each entry of the worksheet does to the plunger.
///
/// Head, deck and gasket move it by their height times the cosine of the valves' tilt, not times the ratio; a stem that
/// rises by t by t/R; a shim t under the stand by -t (1 + 1/R); a smaller base circle by the drop of its radius.
pub fn worksheet(work: &PreloadWork, valve_angle: Option<Angle>, ratio: f64) -> Vec<Work> {
    let tilt = valve_angle.map_or(1.0, |angle| angle.si().cos());
    let factors = [
        ("head_milled", work.head_milled, tilt),
        ("deck_milled", work.deck_milled, tilt),
        ("gasket_thicker", work.gasket_thicker, -tilt),
        ("stem_higher", work.stem_higher, 1.0 / ratio),
        ("lash_cap", work.lash_cap, 1.0 / ratio),
        ("base_circle_smaller", work.base_circle_smaller, -0.5),
        ("stand_shim", work.stand_shim, -(1.0 + 1.0 / ratio)),
        ("pushrod_longer", work.pushrod_longer, 1.0),
    ];
    let given = factors.into_iter().filter_map(|(key, by, factor)| by.map(|by| Work { key, change: factor * by.si() }));
    given.collect()
}

/// A valve as it grows.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Stem {
    /// Face to tip, m.
    pub length: f64,
    /// Of its head.
    pub material: Option<ValveMaterial>,
    /// Whether exhaust gas heats it.
    pub exhaust: bool,
}

/// Mean heating of a valve from cold to hot, intake and exhaust, K (assumed, so that aluminium heads on an iron block come
/// to the trade's .006 in on average).
const STEM_HEAT: (f64, f64) = (50.0, 100.0);

impl Stem {
    /// How much longer it is when hot, m.
    fn growth(&self) -> f64 {
        // Expansion for a kelvin of the alloys [handbooks; from memory].
        let expansion = match self.material {
            Some(ValveMaterial::Titanium) => 9.5e-6,
            Some(ValveMaterial::Steel) => 12e-6,
            Some(ValveMaterial::NickelAlloy) => 13e-6,
            Some(ValveMaterial::Stainless | ValveMaterial::SodiumFilled) | None => 17e-6,
        };
        self.length * expansion * if self.exhaust { STEM_HEAT.1 } else { STEM_HEAT.0 }
    }
}

const fn expansion(is_aluminium: bool) -> f64 {
    if is_aluminium { ALUMINIUM } else { IRON }
}

/// How much so much of a block grows from cold to hot, m.
pub fn block_growth(length: f64, is_aluminium: bool) -> f64 {
    length * expansion(is_aluminium) * BLOCK_HEAT
}

/// How much a lash at the valve grows from cold to hot, m, for a pushrod of `length` (m) of a metal.
///
/// `R (block + head - pushrod) + head - stem`: block and head carry the rocker's pivot away from the cam, the pushrod
/// follows; the pivot also rises over the deck with the head while the stem's tip rises with the valve [by hand, from the
/// rocker as a lever].
pub fn lash_growth(
    length: f64,
    metal: Metal,
    ratio: f64,
    (aluminium_block, aluminium_head): (bool, bool),
    stem: Stem,
) -> f64 {
    let block = block_growth(length * (1.0 - HEAD_SHARE), aluminium_block);
    let head = length * HEAD_SHARE * expansion(aluminium_head) * HEAD_HEAT;
    let pushrod = length * metal.expansion * PUSHROD_HEAT;
    (block + head - pushrod) * ratio + head - stem.growth()
}

/// An inch, m.
const INCH: f64 = 0.0254;
/// Preload as engines leave the works, in.
const PRELOAD_SERIES: (f64, f64) = (0.015, 0.030);
/// Preload so light that pump-up cannot hold the valve open, in.
const PRELOAD_LIGHT: (f64, f64) = (0.0, 0.006);
/// Room a deep preload leaves above the bottom of the plunger's travel, in.
const PRELOAD_DEEP: (f64, f64) = (0.040, 0.010);

/// Least and most preload of a school, m, for a plunger of that travel.
pub fn preload_of_school(school: PreloadSchool, travel: Option<f64>) -> Option<(f64, f64)> {
    let inches = |(low, high): (f64, f64)| (low * INCH, high * INCH);
    Some(match school {
        PreloadSchool::Light => inches(PRELOAD_LIGHT),
        PreloadSchool::Deep => travel.map(|travel| (travel - PRELOAD_DEEP.0 * INCH, travel - PRELOAD_DEEP.1 * INCH))?,
        PreloadSchool::Series => inches(PRELOAD_SERIES),
    })
}

/// What a hydraulic lifter can do to the valve at most, m: held open when it pumps up from a preload, lift lost when it
/// bleeds down all of its `travel`; none while that is not known. Pumping up takes the preload back, bleeding the rest,
/// each times the ratio at the valve.
pub fn at_most(preload: f64, travel: Option<f64>, ratio: f64) -> (f64, Option<f64>) {
    (preload.max(0.0) * ratio, travel.map(|travel| (travel - preload.max(0.0)).max(0.0) * ratio))
}

/// Travel and load of a leak-down tester, m and N [common practice, from memory].
const TESTER_TRAVEL: f64 = 0.125 * 0.0254;
const TESTER_LOAD: f64 = 50.0 * 4.448_221_6;

/// How far a plunger bleeds down in one opening, m, that goes down [`TESTER_TRAVEL`] under [`TESTER_LOAD`] in `seconds`:
/// laminar flow through its clearance goes with the load. `pushrod` gives the load (N) at every cam degree of the opening,
/// `speed` is the crank's, rad/s.
pub fn bled(seconds: f64, pushrod: &[f64], speed: f64) -> f64 {
    let per_newton_second = TESTER_TRAVEL / (TESTER_LOAD * seconds);
    // The cam turns at half the crank's speed.
    let per_degree = std::f64::consts::PI / 180.0 / (0.5 * speed);
    per_newton_second * pushrod.iter().sum::<f64>() * per_degree
}

/// One place and the pushrod that goes there.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Match {
    /// Place in the list of places.
    pub place: usize,
    /// Place of the pushrod on the bench.
    pub pushrod: usize,
    /// Shims of the given step under the stand.
    pub shims: u32,
    /// Preload that results, m.
    pub preload: f64,
}

/// Tenths of a micrometre: assignment costs are whole numbers.
const UNIT: f64 = 1e-7;
/// Most shims under one stand.
const MOST_SHIMS: u32 = 4;

/// The assignment of pushrods to places with the least sum of squares off the wanted preload [Kuhn 1955, Munkres 1957];
/// shims of `step` under a stand take `step (1 + 1/R)` each. `None` with fewer pushrods than places.
pub fn matched(pushrods: &[f64], places: &[f64], wanted: f64, step: Option<f64>, ratio: f64) -> Option<Vec<Match>> {
    if pushrods.len() < places.len() || places.is_empty() {
        return None;
    }
    let best = |place: f64, pushrod: f64| -> (u32, f64) {
        let bare = pushrod - place;
        let with = |shims: u32| bare - f64::from(shims) * step.unwrap_or(0.0) * (1.0 + 1.0 / ratio);
        let most = if step.is_some() { MOST_SHIMS } else { 0 };
        let tried = (0..=most).map(|shims| (shims, with(shims)));
        tried.min_by(|a, b| (a.1 - wanted).abs().total_cmp(&(b.1 - wanted).abs())).unwrap_or((0, bare))
    };
    let cost = |place: usize, pushrod: usize| {
        let off = (best(places[place], pushrods[pushrod]).1 - wanted) / UNIT;
        // A quarter of a metre squared in tenths of a micrometre stays far within 64 bits.
        (off * off).min(1e15).round() as i64
    };
    let costs = Matrix::from_fn(places.len(), pushrods.len(), |(place, pushrod)| cost(place, pushrod));
    let (_, assigned) = kuhn_munkres_min(&costs);
    let places = assigned.into_iter().enumerate().map(|(place, pushrod)| {
        let (shims, preload) = best(places[place], pushrods[pushrod]);
        Match { place, pushrod, shims, preload }
    });
    Some(places.collect())
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn aluminium_heads_grow_lash_by_the_trades_thousandths() {
        // About .006 in on an iron block with aluminium heads, .012 with both of aluminium, little on all iron [common
        // practice, no source].
        let stem = |exhaust| Stem { length: 5.0 * 0.0254, material: Some(ValveMaterial::Stainless), exhaust };
        let mean = |metal: Metal, castings| {
            let one = |exhaust| lash_growth(8.0 * 0.0254, metal, 1.6, castings, stem(exhaust)) / 0.0254;
            0.5 * (one(false) + one(true))
        };
        let at = |block, head| mean(Metal::STEEL, (block, head));
        assert!((0.004..0.008).contains(&at(false, true)), "{}", at(false, true));
        assert!((0.009..0.015).contains(&at(true, true)), "{}", at(true, true));
        assert!(at(false, false).abs() < 0.006, "{}", at(false, false));
        // The exhaust's hotter stem takes lash that the intake keeps: why diesels set it wider cold.
        let one = |exhaust| lash_growth(8.0 * 0.0254, Metal::STEEL, 1.6, (false, false), stem(exhaust));
        assert!(one(true) < one(false) && one(true) < 0.0, "{} {}", one(true), one(false));
        // A pushrod of aluminium grows with an aluminium engine: what is left is near nothing.
        let both = mean(Metal::ALUMINIUM, (true, true));
        assert!(both.abs() < 0.003, "{both}");
    }

    #[test]
    fn light_preload_holds_little_open_and_deep_preload_loses_little() {
        let inch = 0.0254;
        let (held, lost) = at_most(0.003 * inch, Some(0.140 * inch), 1.6);
        assert!((held / inch - 0.0048).abs() < 1e-9 && (lost.unwrap() / inch - 0.2192).abs() < 1e-9);
        let (held, lost) = at_most(0.125 * inch, Some(0.140 * inch), 1.6);
        assert!((held / inch - 0.200).abs() < 1e-9 && (lost.unwrap() / inch - 0.024).abs() < 1e-9);
        assert_eq!(at_most(-0.001, None, 1.6), (0.0, None));
    }

    #[test]
    fn a_plunger_bleeds_by_the_testers_rate() {
        // 100 cam degrees at 50 lbf take 100/(3 x 200) s at 200 rpm; .125 in in 20 s is .00625 in/s: .00104 in, by hand.
        let speed = 200.0 * std::f64::consts::PI / 30.0;
        let found = bled(20.0, &[50.0 * 4.448_221_6; 100], speed) / 0.0254;
        assert!((found - 0.001_041_7).abs() < 1e-6, "{found}");
    }

    #[test]
    fn the_longest_pushrod_goes_where_it_is_missed() {
        let found = matched(&[0.2000, 0.2004, 0.1996], &[0.1994, 0.1990, 0.1986], 1e-3, None, 1.6).unwrap();
        assert_eq!(found.iter().map(|m| m.pushrod).collect::<Vec<_>>(), [1, 0, 2]);
        assert!(found.iter().all(|m| (m.preload - 1e-3).abs() < 1e-9), "{found:?}");
        assert_eq!(matched(&[0.2], &[0.2, 0.2], 1e-3, None, 1.6), None);
    }

    #[test]
    fn a_shim_takes_more_than_its_thickness() {
        // .020 in at 1.6 takes .0325 in: from .065 to .0325 wanted, one shim.
        let inch = 0.0254;
        let found = matched(&[8.065 * inch], &[8.0 * inch], 0.0325 * inch, Some(0.020 * inch), 1.6).unwrap();
        assert_eq!(found[0].shims, 1);
        assert!((found[0].preload - 0.0325 * inch).abs() < 1e-9);
    }
}
