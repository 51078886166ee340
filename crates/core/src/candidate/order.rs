//! What to grind so that what runs is what the card promises: order compensation.

use crate::cam::{Check, Flank, Lobe, LobeCard, lobe_of_card};
use crate::quantity::{Dimension, Length, shown};
use crate::report::{OrderCheck, OrderReport};
use crate::train::running::RunningTrain;
use crate::train::{Spring, ValveLift};

/// Rounds of correction; each leaves a tenth of the error or less, two some tenths of a thousandth.
const ROUNDS: usize = 2;

/// Valve lift under which a check cannot be compared, m: lash, give and the load of the closed spring take it up.
const NOTHING: f64 = 0.5e-3;

/// The order for one lobe: its running lift and the running durations at the card's heights are those of rigid parts on
/// the card. Lash and the lifter's give are no loss: lobes are designed for them. `None` where no smooth lobe carries such
/// a card.
pub fn order(
    card: &LobeCard,
    lobe: &Lobe,
    running: &RunningTrain,
    lift: &ValveLift,
    spring: Option<&Spring>,
) -> Option<OrderReport> {
    let wanted = promised(card.lift, running, lift).max(0.0);
    let mut ordered = card.clone();
    let mut lobe = lobe.clone();
    for _ in 0..ROUNDS {
        let short = wanted - running.valve(lobe.lift().si(), spring);
        ordered.lift = Length::from_si(ordered.lift.si() + short / lift.ratio);
        for (flank, checks, promised) in [
            (Flank::Opening, &mut ordered.opening, &card.opening),
            (Flank::Closing, &mut ordered.closing, &card.closing),
        ] {
            for (check, card) in checks.iter_mut().zip(promised) {
                // Below what lash and flex take up there is nothing to compare: the ramp moves with the flank.
                let runs = running_flank(card.height, flank, &lobe, running, lift, spring);
                check.crank_deg += runs.map_or(0.0, |runs| card.crank_deg - runs);
            }
        }
        keep_order(&mut ordered, card);
        lobe = lobe_of_card(&ordered).ok()?;
    }
    let checks = card.opening.iter().zip(&card.closing).enumerate().map(|(i, (opening, closing))| {
        let runs = |flank| running_flank(opening.height, flank, &lobe, running, lift, spring);
        OrderCheck {
            height: shown(opening.height.si(), Dimension::Length),
            card_deg: opening.crank_deg + closing.crank_deg,
            order_deg: ordered.opening[i].crank_deg + ordered.closing[i].crank_deg,
            running_deg: runs(Flank::Opening).zip(runs(Flank::Closing)).map(|(a, b)| a + b),
        }
    });
    Some(OrderReport {
        lobe_lift: shown(ordered.lift.si(), Dimension::Length),
        checks: checks.collect(),
        residual: shown(running.valve(lobe.lift().si(), spring) - wanted, Dimension::Length),
    })
}

/// Valve lift of rigid parts at a lobe lift, m.
fn promised(lobe: Length, running: &RunningTrain, lift: &ValveLift) -> f64 {
    (lobe.si() - running.give) * lift.ratio - lift.lash.si()
}

/// Crank degrees between full lift and where the running valve stands where rigid parts would on a lobe lift of `height`.
fn running_flank(
    height: Length,
    flank: Flank,
    lobe: &Lobe,
    running: &RunningTrain,
    lift: &ValveLift,
    spring: Option<&Spring>,
) -> Option<f64> {
    let valve = promised(height, running, lift);
    if valve < NOTHING {
        return None;
    }
    let needed = running.lobe_at(valve, lobe.lift().si(), spring)?;
    lobe.flank_angle(Length::from_si(needed), flank).map(|cam_deg| 2.0 * cam_deg)
}

/// A check that could not be compared moves as much as the next one above it, so that heights keep their order.
fn keep_order(ordered: &mut LobeCard, card: &LobeCard) {
    for (checks, promised) in [(&mut ordered.opening, &card.opening), (&mut ordered.closing, &card.closing)] {
        for i in (0..checks.len().saturating_sub(1)).rev() {
            let untouched = (checks[i].crank_deg - promised[i].crank_deg).abs() < 1e-12;
            if untouched {
                let moved = checks[i + 1].crank_deg - promised[i + 1].crank_deg;
                checks[i] = Check { crank_deg: promised[i].crank_deg + moved, ..checks[i] };
            }
        }
    }
}
