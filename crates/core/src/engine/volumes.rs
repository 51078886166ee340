//! Displacement, static and trapped compression.

use super::crank::CrankSlider;
use crate::given::{Engine, Missing, Needs, need};
use crate::quantity::{Angle, Length, Volume};

/// One cylinder: crank, bore and what is above the piston at its highest place.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Cylinder {
    /// Crank and rod.
    pub crank: CrankSlider,
    /// Cylinder bore.
    pub bore: Length,
    /// Number of cylinders.
    pub count: f64,
    /// Piston below the deck at its highest place.
    pub deck_clearance: Length,
    /// Crushed gasket.
    pub gasket_thickness: Length,
    /// Volume above the piston at its highest place, `None` when a part of it is unknown.
    pub clearance_volume: Option<Volume>,
}

/// Reads the cylinder from `engine`. What only compression needs is left unknown, not missing.
pub fn read_cylinder(engine: &Engine) -> Result<Cylinder, Missing> {
    let mut needs = Needs::default();
    let (bore, stroke, rod) = (need!(needs, engine.bore), need!(needs, engine.stroke), need!(needs, engine.rod_length));
    let offset = need!(needs, engine.pin_offset);
    let (deck_clearance, gasket_thickness) =
        (need!(needs, engine.deck_clearance), need!(needs, engine.gasket_thickness));
    let count = need!(needs, engine.cylinders);
    let clearance_volume = clearance_volume(engine, bore, deck_clearance, gasket_thickness);
    needs.met(())?;
    // Reading the document refused a rod that cannot turn this crank. On the way down under gas the crank pin stands on the
    // minor thrust side, which the slider's formula counts as positive.
    let towards_crank_pin = Length::from_si(-offset.si());
    let crank =
        CrankSlider::new(stroke, rod, towards_crank_pin).ok_or_else(|| Missing(vec![engine.at("rod_length")]))?;
    Ok(Cylinder { crank, bore, count, deck_clearance, gasket_thickness, clearance_volume })
}

/// Chamber + gasket + deck + piston, all at the highest place of the piston.
fn clearance_volume(engine: &Engine, bore: Length, deck: Length, gasket: Length) -> Option<Volume> {
    let (chamber, piston) = (engine.chamber_volume?, engine.piston_volume?);
    let gasket_bore = engine.gasket_bore.unwrap_or(bore);
    let total = chamber.si() + piston.si() + disc(gasket_bore) * gasket.si() + disc(bore) * deck.si();
    (total > 0.0).then_some(Volume::from_si(total))
}

fn disc(diameter: Length) -> f64 {
    0.25 * std::f64::consts::PI * diameter.si() * diameter.si()
}

impl Cylinder {
    /// Volume swept by all pistons over the true stroke.
    pub fn displacement(&self) -> Volume {
        Volume::from_si(self.count * disc(self.bore) * self.crank.true_stroke().si())
    }

    /// Volume at the lowest place over volume at the highest.
    pub fn compression_ratio(&self) -> Option<f64> {
        self.ratio_at(self.crank.true_bottom().at)
    }

    /// Volume above the piston when the intake closes `abdc` crank degrees after bottom dead
    /// centre, over the volume at the highest place: exact slider-crank, not a share of the stroke.
    ///
    /// Bottom dead centre is half a turn after true top dead centre, as a degree wheel that was set by a
    /// piston stop has it.
    pub fn trapped_compression_ratio(&self, abdc: f64) -> Option<f64> {
        self.ratio_at(self.past_true_top(Angle::deg(180.0 + abdc)))
    }

    fn ratio_at(&self, crank: Angle) -> Option<f64> {
        let clearance = self.clearance_volume?.si();
        Some((clearance + disc(self.bore) * self.crank.drop(crank).si()) / clearance)
    }

    /// Volume above the piston, `after_top` past true top dead centre; `None` while the clearance volume is unknown.
    pub fn volume(&self, after_top: Angle) -> Option<Volume> {
        let drop = self.crank.drop(self.past_true_top(after_top)).si();
        Some(Volume::from_si(self.clearance_volume?.si() + disc(self.bore) * drop))
    }

    /// Flat of the crown to the head's face at the highest place.
    pub fn piston_to_head(&self) -> Length {
        Length::from_si(self.deck_clearance.si() + self.gasket_thickness.si())
    }

    /// Height of the crown below the head's gasket face, positive downwards, `after_top` past true top
    /// dead centre.
    pub fn crown(&self, after_top: Angle) -> Length {
        let drop = self.crank.drop(self.past_true_top(after_top));
        Length::from_si(self.piston_to_head().si() + drop.si())
    }

    /// The crank's own angle: with an offset pin true top dead centre is a little past its zero.
    fn past_true_top(&self, after_top: Angle) -> Angle {
        Angle::from_si(after_top.si() + self.crank.true_top().at.si())
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    /// Worked by hand: bore 100 mm, stroke 100 mm, 60 cc above the piston, one cylinder.
    /// Swept 785.398 cc, ratio (785.398 + 60) / 60 = 14.090.
    #[test]
    fn ratio_and_displacement_of_a_square_cylinder() {
        let cylinder = Cylinder {
            crank: CrankSlider::new(Length::mm(100.0), Length::mm(180.0), Length::mm(0.0)).unwrap(),
            bore: Length::mm(100.0),
            count: 1.0,
            deck_clearance: Length::mm(0.0),
            gasket_thickness: Length::mm(1.0),
            clearance_volume: Some(Volume::cc(60.0)),
        };
        assert!((cylinder.displacement().as_cc() - 785.398).abs() < 1e-3);
        assert!((cylinder.compression_ratio().unwrap() - 14.0900).abs() < 1e-4);
        assert_eq!(cylinder.trapped_compression_ratio(0.0), cylinder.compression_ratio());
        // With an offset pin the crown is highest where the degree wheel reads zero.
        let offset = Cylinder {
            crank: CrankSlider::new(Length::mm(100.0), Length::mm(180.0), Length::mm(1.5)).unwrap(),
            ..cylinder
        };
        let at = |deg: f64| offset.crown(Angle::deg(deg)).as_mm();
        assert!((at(0.0) - 1.0).abs() < 1e-12 && at(0.1) > 1.0 && at(-0.1) > 1.0);
        // Closing at top dead centre traps nothing.
        assert!((cylinder.trapped_compression_ratio(180.0).unwrap() - 1.0).abs() < 1e-12);
    }
}
