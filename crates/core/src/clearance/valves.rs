//! Valve to valve: both heads on their own stems, over the crank angles where both are open.

use super::frame::ValveFrame;
use crate::quantity::Length;

/// Smallest distance between the heads and the crank degree of it, over overlap and both valves closed; each is lifted by so
/// many m over crank degrees. Heads count as thin discs at their lower faces: the seat cone behind them is narrower.
pub fn valve_to_valve(
    (intake, intake_lift): (&ValveFrame, &dyn Fn(f64) -> f64),
    (exhaust, exhaust_lift): (&ValveFrame, &dyn Fn(f64) -> f64),
) -> (Length, f64) {
    let distance = |crank_deg: f64| {
        let one = intake.opened(Length::from_si(intake_lift(crank_deg)));
        let other = exhaust.opened(Length::from_si(exhaust_lift(crank_deg)));
        between(&one, &other)
    };
    let grid = (0..=80).map(|i| 280.0 + 2.0 * f64::from(i));
    let least = grid.map(|deg| (distance(deg), deg)).min_by(|a, b| a.0.total_cmp(&b.0));
    let (gap, at) = least.unwrap_or((f64::INFINITY, 360.0));
    (Length::from_si(gap), at)
}

fn between(one: &ValveFrame, other: &ValveFrame) -> f64 {
    let edge_to = |from: &ValveFrame, to: &ValveFrame| {
        from.edge().into_iter().map(|place| to.distance(place)).fold(f64::INFINITY, f64::min)
    };
    edge_to(one, other).min(edge_to(other, one))
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn parallel_heads_side_by_side_are_apart_by_their_rims() {
        let head = |y: f64, z: f64| ValveFrame { centre: [0.0, y, z], axis: [0.0, 0.0, 1.0], radius: 0.02 };
        // 0.045 between centres less two radii of 0.020.
        assert!((between(&head(0.0, 0.0), &head(0.045, 0.0)) - 0.005).abs() < 1e-12);
        // 3-4-5: 0.004 apart sideways, 0.003 in height.
        assert!((between(&head(0.0, 0.0), &head(0.044, 0.003)) - 0.005).abs() < 1e-12);
    }
}
