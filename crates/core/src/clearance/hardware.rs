//! Clearances of the parts around the spring.

use crate::document::{Missing, Needs, Node, Side};
use crate::quantity::Length;

/// Retainer to seal at full lift: installed height - retainer depth - seal height - net lift.
pub fn retainer_to_seal(train: &Node<'_>, port: &Node<'_>, side: Side, net_lift: Length) -> Result<Length, Missing> {
    let mut needs = Needs::default();
    let installed: Length = needs.quantity(&train.child("spring").side(side), "installed_height");
    let depth: Length = needs.quantity(&train.child("retainer").side(side), "depth");
    let seal: Length = needs.quantity(port, "seal_height");
    needs.met(Length::from_si(installed.si() - depth.si() - seal.si() - net_lift.si()))
}
