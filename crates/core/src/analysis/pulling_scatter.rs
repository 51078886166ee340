//! Combinations whose pulls scatter otherwise than the baseline's: there one spread for all misleads, and each goes by its own.

use super::pulling::{HELD, Tested};
use crate::pulls::{scatters_otherwise, welch};
use crate::quantity::{Dimension, Shown};

/// How a difference and its interval are written.
type Written = fn(f64, (f64, f64), Dimension) -> Shown;

/// A sentence of each such combination, by its name, with the difference of the average torque by each its own spread.
pub(super) fn scatter(tested: &Tested, name: impl Fn(&str) -> String, interval: Written) -> Vec<Shown> {
    let Some(fitted) = tested.differs.as_ref().map(|differs| &differs.average_torque) else { return Vec::new() };
    let levelled = fitted.levelled(&tested.figures.iter().map(|own| own.average_torque).collect::<Vec<f64>>());
    let of = |place: usize| -> Vec<f64> {
        levelled.iter().filter(|(combination, _)| *combination == place).map(|(_, value)| *value).collect()
    };
    let baseline = of(0);
    let said = |(place, id): (usize, &String)| {
        let own = of(place);
        let times = scatters_otherwise(&own, &baseline)?;
        let apart = welch(&own, &baseline)?;
        let (by, half) = (apart.difference, apart.half_width(HELD));
        let (more, less) = if times > 1.0 { (id, &tested.combinations[0]) } else { (&tested.combinations[0], id) };
        let (more, less, times) = (name(more), name(less), times.max(times.recip()));
        Some(interval(by, (by - half, by + half), Dimension::Torque).said(|own| {
            format!(
                "Pulls of {more} scatter {times:.1} times as much as those of {less}; each by its own spread, {} has {own} of average torque.",
                name(id)
            )
        }))
    };
    tested.combinations.iter().enumerate().skip(1).filter_map(said).collect()
}
