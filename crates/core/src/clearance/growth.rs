//! What brings piston and head together between a gap measured cold and by hand and the same gap at speed: every term by
//! itself, towards the head positive, m.

use crate::train::compliance::Metal;
use crate::train::preload::block_growth;

/// Forged steel of a rod [Shigley, table A-5; handbooks for density and expansion; from memory].
pub const STEEL_ROD: Metal = Metal { modulus: 2.06e11, density: 7850.0, expansion: 11.5e-6 };
/// Forged aluminium.
pub const ALUMINIUM_ROD: Metal = Metal { modulus: 7.1e10, density: 2810.0, expansion: 23e-6 };
/// Titanium.
pub const TITANIUM_ROD: Metal = Metal { modulus: 1.14e11, density: 4430.0, expansion: 8.6e-6 };

/// A rod with its piston on a crank.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Reciprocating {
    /// Half the stroke, m.
    pub throw: f64,
    /// Rod between its centres, m.
    pub rod_length: f64,
    /// Whole rod, kg.
    pub rod_mass: f64,
    /// Piston, pin, rings and locks, kg.
    pub piston_mass: f64,
    /// What the rod is made of.
    pub metal: Metal,
}

/// Share of a rod's mass that is its beam between the eyes (assumed; race and production rods alike).
const BEAM: f64 = 0.45;

impl Reciprocating {
    /// Section of the beam, m2: its mass over its length and density.
    fn section(&self) -> f64 {
        BEAM * self.rod_mass / (self.rod_length * self.metal.density)
    }

    /// How much longer the rod is at top dead centre of the overlap at a crank speed, rad/s, m, for the pull of the piston and
    /// half its own beam: `F L/(A E)`, `F = (m_piston + m_beam/2) r w^2 (1 + r/L)` [Taylor, *The Internal-Combustion Engine*,
    /// vol. 2, ch. 8, for the acceleration; from memory]. At firing top the gas takes it back.
    pub fn stretch(&self, speed: f64) -> f64 {
        let pull = (self.piston_mass + 0.5 * BEAM * self.rod_mass)
            * self.throw
            * speed.powi(2)
            * (1.0 + self.throw / self.rod_length);
        pull * self.rod_length / (self.section() * self.metal.modulus)
    }
}

/// How much warmer a rod is than the shop, K (common practice, no source).
const ROD_HEAT: f64 = 80.0;
/// From the pin to the crown of a piston, of a bore (assumed), where the block's height is not known.
const PIN_HEIGHT: f64 = 0.33;

/// How much further hot throw and rod bring the pin up, m; a crank grows as a steel rod does.
pub fn rod_warmed(throw: f64, rod_length: f64, metal: Metal) -> f64 {
    (throw * STEEL_ROD.expansion + rod_length * metal.expansion) * ROD_HEAT
}

/// How much further a hot block carries its deck from the crank, m.
pub fn block_warmed(throw: f64, rod_length: f64, bore: f64, is_aluminium: bool) -> f64 {
    block_growth(throw + rod_length + PIN_HEIGHT * bore, is_aluminium)
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::quantity::INCH;

    fn steel() -> Reciprocating {
        Reciprocating { throw: 0.05, rod_length: 0.1575, rod_mass: 0.69, piston_mass: 0.548, metal: STEEL_ROD }
    }

    #[test]
    fn a_rod_stretches_by_the_closed_form_and_with_the_square_of_speed() {
        // By hand: beam .3105 kg, 251.1 mm2; pull at 800 rad/s .70325 kg x .05 x 640,000 x 1.31746 = 29,648 N; over EA/L.
        let by_hand = 29_648.0 * 0.1575 / (251.1e-6 * 2.06e11);
        assert!((steel().stretch(800.0) / by_hand - 1.0).abs() < 1e-3, "{}", steel().stretch(800.0));
        assert!((steel().stretch(400.0) / steel().stretch(800.0) - 0.25).abs() < 1e-12);
    }

    #[test]
    fn steel_gives_some_thousandths_and_aluminium_more() {
        // .003 to .005 in for steel at race speeds, more for aluminium of usual mass (common practice, no source).
        let at = 8000.0 * std::f64::consts::PI / 30.0;
        let inches = |rod: Reciprocating| rod.stretch(at) / INCH;
        assert!((0.003..0.005).contains(&inches(steel())), "{}", inches(steel()));
        let aluminium = Reciprocating { rod_mass: 0.48, metal: ALUMINIUM_ROD, ..steel() };
        assert!(inches(aluminium) > 1.3 * inches(steel()), "{}", inches(aluminium));
    }

    #[test]
    fn an_iron_block_hardly_outgrows_steel_rods_and_aluminium_rods_outgrow_it() {
        let block = |is_aluminium| block_warmed(0.05, 0.1575, 0.1055, is_aluminium);
        let rod = |metal| rod_warmed(0.05, 0.1575, metal);
        assert!((block(false) - rod(STEEL_ROD)).abs() < 0.002 * INCH);
        assert!(rod(ALUMINIUM_ROD) - block(false) > 0.003 * INCH);
        assert!(block(true) > rod(STEEL_ROD) + 0.006 * INCH);
    }
}
