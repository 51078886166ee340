//! The closed lists of the build document as enums: one list gives the words of the table, the reading and the spoken
//! form, so that a new word is a compiler error wherever it must be thought of.

mod bench;
mod engine;
mod plan;
mod running;
mod train;
mod word;

pub use bench::{
    AnglesOf, BankEnd, ClayAt, Cracks, CrownEdge, DegreeMethod, DialOn, FilledOf, FlankWord, HeadCheck, LashState,
    MappedBy, Obtained, SessionKind, SpringUsed, Warmth, WitnessKind,
};
pub use engine::{
    Accessories, Casting, ChargerKind, Combustion, ExhaustManifold, FaceSpot, FuelKind, Induction, IntakeManifold,
    Layout, LightMetal, MixtureKind, RodMaterial,
};
pub use plan::{ClearanceSchool, FamilyKind, Scored, SharedCause, SpreadShape, Use};
pub use running::{CalibratedBy, DynoKind, PullAir, ServiceEvent, ServicePart, TracedOf};
pub use train::{
    AntiRotation, CamDrive, CamGear, ChainRows, Core, DistributorGear, GroundFor, Guide, LifterKind, LifterVariant,
    Mount, PreloadSchool, RockerGeometry, Snout, SpringForm, Tip, ValveMaterial, Wire,
};
pub use word::Word;

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn every_word_reads_back_as_its_choice() {
        for kind in LifterKind::ALL {
            assert_eq!(LifterKind::from_word(kind.word()), Some(*kind));
        }
        assert_eq!(LifterKind::WORDS.len(), LifterKind::ALL.len());
        assert_eq!(LifterKind::from_word("roller"), None);
        assert_eq!(LifterKind::HydraulicRoller.spoken(), "hydraulic roller");
    }
}
