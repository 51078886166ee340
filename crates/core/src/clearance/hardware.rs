//! Clearances of the parts around the spring.

use crate::given::{Missing, Needs, Port, Train, need};
use crate::quantity::Length;

/// Retainer to seal at full lift: installed height - retainer depth - seal height - net lift.
///
/// # Errors
/// Heights that are missing.
pub fn retainer_to_seal(train: &Train, port: &Port, net_lift: Length) -> Result<Length, Missing> {
    let (spring, retainer) = (&train.spring, &train.retainer);
    let mut needs = Needs::default();
    let (installed, depth) = (need!(needs, spring.installed_height), need!(needs, retainer.depth));
    let seal = need!(needs, port.seal_height);
    needs.met(Length::from_si(installed.si() - depth.si() - seal.si() - net_lift.si()))
}
