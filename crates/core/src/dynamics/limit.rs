//! At which speed control is lost.

use super::measure::Figures;

/// What loses control first.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum LimitedBy {
    /// The train parts while the lobe holds the valve open.
    Separation,
    /// The valve leaves its seat again.
    Bounce,
    /// The valve does not close.
    HangOpen,
    /// The plunger has pumped up and holds it open.
    PumpUp,
    /// The train parts while coils strike each other with more than the spring bears at full lift.
    CoilClash,
}

/// Share of the installed preload the plunger must have risen by for a hanging valve to be pump-up's.
const PUMPED: f64 = 0.5;

/// A valve that does not seat at all seals nothing: a tenth of a gap's or a bounce's threshold is enough (assumed).
const SEALS: f64 = 10.0;

/// What crosses `threshold` (m) in these figures: a valve that stays open before all, else the largest; `None` in control.
/// `preload` is how far the plunger may rise, m, zero for a solid lifter; `open_load` the springs' at full lift, N.
pub fn lost(figures: &Figures, threshold: f64, preload: f64, open_load: f64) -> Option<LimitedBy> {
    let separation = if figures.clash > open_load { LimitedBy::CoilClash } else { LimitedBy::Separation };
    let pumped = preload > 0.0 && figures.plunger.0 > PUMPED * preload;
    let hang = if pumped { LimitedBy::PumpUp } else { LimitedBy::HangOpen };
    if SEALS * figures.hang_open > threshold {
        return Some(hang);
    }
    let all = [(figures.loft, separation), (figures.bounce, LimitedBy::Bounce)];
    all.into_iter().filter(|(size, _)| *size > threshold).max_by(|a, b| a.0.total_cmp(&b.0)).map(|(_, by)| by)
}

/// The largest of gap, bounce and hang-open, m; the last counts ten times.
pub fn worst(figures: &Figures) -> f64 {
    figures.loft.max(figures.bounce).max(SEALS * figures.hang_open)
}

/// Lowest speed at which what is `sizes` at `speeds` (rising) crosses the threshold and stays above it for the next speed
/// too, between two speeds linear; bounce comes and goes with resonance. `None` where it does not.
pub fn crossing(speeds: &[f64], sizes: &[f64], threshold: f64) -> Option<f64> {
    let above = |i: usize| sizes.get(i).is_none_or(|size| *size > threshold);
    let at = (0..speeds.len()).find(|i| above(*i) && above(i + 1))?;
    let Some(before) = at.checked_sub(1) else { return Some(speeds[0]) };
    let share = (threshold - sizes[before]) / (sizes[at] - sizes[before]);
    Some(speeds[before] + share.clamp(0.0, 1.0) * (speeds[at] - speeds[before]))
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn what_loses_control_is_named() {
        let by = |figures: Figures| lost(&figures, 0.5e-3, 0.6e-3, 1500.0);
        let lofts = Figures { loft: 0.6e-3, bounce: 0.1e-3, ..Figures::default() };
        assert_eq!(by(Figures::default()), None);
        assert_eq!(by(lofts), Some(LimitedBy::Separation));
        assert_eq!(by(Figures { clash: 2000.0, ..lofts }), Some(LimitedBy::CoilClash));
        assert_eq!(by(Figures { bounce: 0.9e-3, ..lofts }), Some(LimitedBy::Bounce));
        // A valve that stays open decides; with the plunger risen it is pump-up.
        assert_eq!(by(Figures { hang_open: 0.04e-3, ..Figures::default() }), None);
        let hangs = Figures { hang_open: 0.06e-3, bounce: 0.9e-3, ..lofts };
        assert_eq!(by(hangs), Some(LimitedBy::HangOpen));
        assert_eq!(by(Figures { plunger: (0.5e-3, 0.0), ..hangs }), Some(LimitedBy::PumpUp));
    }

    #[test]
    fn a_limit_is_where_the_threshold_is_crossed_for_good() {
        let speeds = [5000.0, 5200.0, 5400.0, 5600.0, 5800.0];
        assert_eq!(crossing(&speeds, &[0.0, 0.1, 0.3, 0.7, 0.9], 0.5), Some(5500.0));
        // One resonance that passes is not a limit.
        assert_eq!(crossing(&speeds, &[0.0, 0.9, 0.1, 0.1, 0.1], 0.5), None);
        assert_eq!(crossing(&speeds, &[0.9, 0.9, 0.1, 0.1, 0.1], 0.5), Some(5000.0));
    }
}
