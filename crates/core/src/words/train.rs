//! What a valve train is made of.

use super::word::{Word, words};

words! {
    /// What rides on the lobe.
    LifterKind {
        /// Hydraulic, flat foot.
        HydraulicFlat = "hydraulic_flat",
        /// Solid, flat foot.
        SolidFlat = "solid_flat",
        /// Hydraulic, roller.
        HydraulicRoller = "hydraulic_roller",
        /// Solid, roller.
        SolidRoller = "solid_roller",
    }

    /// Design of a hydraulic lifter.
    LifterVariant {
        /// As series engines have it.
        Standard = "standard",
        /// With little travel, so that pump-up is short.
        ShortTravel = "short_travel",
        /// With a valve against pump-up.
        AntiPumpUp = "anti_pump_up",
    }

    /// What keeps a roller lifter square to its lobe.
    AntiRotation {
        /// A bar between two lifters.
        LinkBar = "link_bar",
        /// A tray in the valley.
        GuideTray = "guide_tray",
        /// A key in the bore.
        Keyway = "keyway",
        /// Nothing.
        None = "none",
    }

    /// How much preload the builder holds to.
    PreloadSchool {
        /// As engines leave the works.
        Series = "series",
        /// So light that pump-up cannot hold the valve open.
        Light = "light",
        /// Close to the bottom, with short travel.
        Deep = "deep",
    }

    /// What turns the camshaft.
    CamDrive {
        /// A chain.
        Chain = "chain",
        /// Gears.
        Gear = "gear",
        /// A belt.
        Belt = "belt",
    }

    /// How wide a chain is.
    ChainRows {
        /// One row.
        Single = "single",
        /// Two rows.
        Double = "double",
    }

    /// How a gear is bolted to a cam.
    Snout {
        /// One bolt.
        OneBolt = "one_bolt",
        /// Two bolts.
        TwoBolt = "two_bolt",
        /// Three bolts.
        ThreeBolt = "three_bolt",
    }

    /// Gear of distributor or oil pump that runs on the cam's.
    DistributorGear {
        /// Cast iron.
        Iron = "iron",
        /// Hardened steel.
        Steel = "steel",
        /// Bronze.
        Bronze = "bronze",
        /// Composite.
        Composite = "composite",
        /// There is none.
        None = "none",
    }

    /// What the lobes are cut from.
    Core {
        /// Cast iron.
        CastIron = "cast_iron",
        /// Steel.
        Steel = "steel",
        /// Ductile iron.
        DuctileIron = "ductile_iron",
    }

    /// The lifters a cam's lobes are ground for.
    GroundFor {
        /// With a taper, for flat lifters.
        Flat = "flat",
        /// For rollers.
        Roller = "roller",
    }

    /// The cam's own gear.
    CamGear {
        /// Cut from the core.
        Core = "core",
        /// Of iron, pressed on.
        PressedIron = "pressed_iron",
    }

    /// What a rocker pivots on.
    Mount {
        /// A stud of its own.
        Stud = "stud",
        /// A pedestal.
        Pedestal = "pedestal",
        /// A single shaft.
        Shaft = "shaft",
        /// One shaft for a pair.
        PairedShaft = "paired_shaft",
    }

    /// What touches the valve.
    Tip {
        /// A roller.
        Roller = "roller",
        /// A plain pad.
        Pad = "pad",
    }

    /// The school of a rocker's height.
    RockerGeometry {
        /// Square to the stem at half lift.
        HalfLift = "half_lift",
        /// Never past square: square at full lift.
        FullLift = "full_lift",
    }

    /// Material of a valve's head.
    ValveMaterial {
        /// Stainless steel.
        Stainless = "stainless",
        /// Titanium.
        Titanium = "titanium",
        /// Nickel alloy.
        NickelAlloy = "nickel_alloy",
        /// Hollow, with sodium.
        SodiumFilled = "sodium_filled",
        /// Steel.
        Steel = "steel",
    }

    /// What a stem runs in.
    Guide {
        /// Bronze.
        Bronze = "bronze",
        /// Iron.
        Iron = "iron",
        /// Powder metal.
        PowderMetal = "powder_metal",
    }

    /// Shape of a spring package.
    SpringForm {
        /// One coil.
        Single = "single",
        /// Narrow at the top.
        Beehive = "beehive",
        /// Narrower all the way up.
        Conical = "conical",
        /// Two nested coils.
        Dual = "dual",
        /// Three nested coils.
        Triple = "triple",
    }

    /// Wire of a spring.
    Wire {
        /// A228.
        Music = "music_wire",
        /// A229.
        OilTempered = "oil_tempered",
        /// A232.
        ChromeVanadium = "chrome_vanadium",
        /// A401.
        ChromeSilicon = "chrome_silicon",
        /// Super-clean chrome silicon of valve-spring quality.
        SuperClean = "super_clean",
    }
}

impl LifterKind {
    /// Whether the foot is flat.
    pub const fn is_flat(self) -> bool {
        matches!(self, Self::HydraulicFlat | Self::SolidFlat)
    }

    /// Whether it runs on a wheel.
    pub const fn is_roller(self) -> bool {
        !self.is_flat()
    }

    /// Whether it runs with lash.
    pub const fn is_solid(self) -> bool {
        matches!(self, Self::SolidFlat | Self::SolidRoller)
    }

    /// Whether oil takes up the play.
    pub const fn is_hydraulic(self) -> bool {
        !self.is_solid()
    }
}
