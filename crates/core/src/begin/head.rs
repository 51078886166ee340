//! What follows from a head's valves and a bore: where valves and pockets lie, and what the ports flow.

use crate::quantity::{CFM, INCH};
use crate::words::Casting;

/// Edge of a closed valve to the cylinder wall, in: more than the wall asks for, since the valve moves across it.
const WALL: f64 = 0.075;
/// Between the edges of neighbouring valves, in.
const BETWEEN: f64 = 0.085;
/// Pocket wider than its valve, in: what the radial limit asks for on both sides, and a little.
pub const POCKET_WIDER: f64 = 0.135;

/// Places of the valves of a cylinder across and along the crank, m.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Places {
    /// Intake and exhaust, across and along.
    pub first: [(f64, f64); 2],
    /// The same of the second valves of the ports.
    pub second: [Option<(f64, f64)>; 2],
}

/// Two valves in line, leaning across the engine by `lean` inches of travel.
pub fn in_line(bore: f64, valves: [f64; 2], across: f64) -> Places {
    let radii = valves.map(|diameter| 0.5 * diameter);
    let intake = -(0.5 * bore - radii[0] - WALL * INCH);
    let exhaust = intake + radii[0] + radii[1] + BETWEEN * INCH;
    Places { first: [(across, intake), (across, exhaust)], second: [None, None] }
}

/// Four upright valves: each port's pair on its own side of the engine, as far out as the bore allows.
pub fn four(bore: f64, valves: [f64; 2]) -> Places {
    let place = |diameter: f64| (0.5 * bore - 0.5 * diameter - WALL * INCH) * std::f64::consts::FRAC_1_SQRT_2;
    let (intake, exhaust) = (place(valves[0]), place(valves[1]));
    Places {
        first: [(-intake, -intake), (exhaust, -exhaust)],
        second: [Some((-intake, intake)), Some((exhaust, exhaust))],
    }
}

/// Flow at 28 inH2O over lift, (m, m3/s): a shape over lift and diameter, times the area of the head, times what heads of
/// the kind reach (common practice, no source; a middle iron head some 200 cfm at .500, an aluminium one 250).
pub fn flow(diameter: f64, valves: f64, intake: bool, heads: Casting) -> Vec<(f64, f64)> {
    // cfm for each square inch of valve at full flow.
    let best = match (intake, heads) {
        (true, Casting::Iron) => 57.0,
        (true, Casting::Aluminium) => 67.0,
        (false, Casting::Iron) => 62.0,
        (false, Casting::Aluminium) => 73.0,
    };
    const SHAPE: [(f64, f64); 7] =
        [(0.05, 0.21), (0.10, 0.42), (0.15, 0.61), (0.20, 0.76), (0.25, 0.88), (0.30, 0.955), (0.35, 1.0)];
    let inches = diameter / INCH;
    SHAPE.iter().map(|(lift, share)| (lift * diameter, share * best * inches * inches * valves * CFM)).collect()
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn valves_keep_off_wall_and_each_other() {
        let places = in_line(4.0 * INCH, [2.02 * INCH, 1.60 * INCH], -0.12 * INCH);
        let [(x, intake), (_, exhaust)] = places.first;
        assert!(x.hypot(intake) + 1.01 * INCH < 2.0 * INCH - 0.040 * INCH);
        assert!(x.hypot(exhaust) + 0.80 * INCH < 2.0 * INCH - 0.040 * INCH);
        assert!(exhaust - intake > (1.01 + 0.80 + 0.060) * INCH);
        let places = four(107e-3, [34e-3, 32e-3]);
        let apart = |a: (f64, f64), b: (f64, f64)| (a.0 - b.0).hypot(a.1 - b.1);
        assert!(apart(places.first[0], places.second[0].unwrap()) > 34e-3 + 1.5e-3);
        assert!(apart(places.first[0], places.first[1]) > 33e-3 + 1.5e-3);
    }

    #[test]
    fn heads_flow_what_their_kind_does() {
        let at_half_inch = |heads| crate::table::held(&flow(2.02 * INCH, 1.0, true, heads), 0.5 * INCH) / CFM;
        // 2.02 in valves: 190 to 225 cfm of a street iron head, 240 to 275 of an aluminium one [common practice, no source].
        assert!((190.0..240.0).contains(&at_half_inch(Casting::Iron)));
        assert!((235.0..275.0).contains(&at_half_inch(Casting::Aluminium)));
    }
}
